import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { keepDashboard } from '../../services/dashboards'

export default designerRoute(API.keepDashboard, async ({ db, designer, body }) => {
  return keepDashboard(db, designer.id, body)
})
