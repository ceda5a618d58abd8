import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { makeAccessKey } from '../../../../services/accessKeys'
import { keepRecord } from '../../../../services/people/record'

export default designerRoute(API.makeAccessKey, async ({ db, params, body, designer, doer }) => {
  const made = await makeAccessKey(db, params.id, designer.id, body)
  const details = { kind: body.kind }
  await keepRecord(db, doer, 'access key made', { form: params.id, about: body.name, details })
  return made
})
