import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { removeAccessKey } from '../../../../services/accessKeys'
import { keepRecord } from '../../../../services/people/record'

export default designerRoute(API.removeAccessKey, async ({ db, params, doer }) => {
  const about = await removeAccessKey(db, params.id, params.issued)
  await keepRecord(db, doer, 'access key revoked', { form: params.id, about })
  return { done: true } as const
})
