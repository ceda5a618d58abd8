import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { keepRecord } from '../../../services/people/record'
import { askApproval } from '../../../services/releases'

export default designerRoute(API.askApproval, async ({ db, params, body, designer, doer }) => {
  await askApproval(db, params.id, designer, body)
  await keepRecord(db, doer, 'approval asked for', { form: params.id, about: `Draft ${body.revision}` })
  return { done: true } as const
})
