import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { askApproval } from '../../../services/releases'

export default designerRoute(API.dropApproval, async ({ db, params, designer }) => {
  await askApproval(db, params.id, designer, null)
  return { done: true } as const
})
