import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { keepRecord } from '../../../services/people/record'
import { loadResponse } from '../../../services/responses'

export default designerRoute(API.loadResponse, async ({ db, params, powers, doer, designer }) => {
  const { formId: form, ...response } = await loadResponse(db, params.id, {
    email: designer.email,
    mayAct: powers.has('act'),
  })
  await keepRecord(db, doer, 'response seen', { form, details: { response: params.id } })
  return response
})
