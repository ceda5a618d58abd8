import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { keepRecord } from '../../../../services/people/record'
import { removeWay } from '../../../../services/ways'

export default designerRoute(API.removeWay, async ({ db, params, doer }) => {
  await removeWay(db, params.id, params.way)
  await keepRecord(db, doer, 'link removed', { form: params.id })
  return { done: true } as const
})
