import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { deleteDashboard } from '../../services/dashboards'

export default designerRoute(API.deleteDashboard, async ({ db, designer, params }) => {
  await deleteDashboard(db, designer.id, params.id)
  return { done: true } as const
})
