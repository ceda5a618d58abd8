import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { changeDashboard } from '../../services/dashboards'

export default designerRoute(API.changeDashboard, async ({ db, designer, params, body }) => {
  await changeDashboard(db, designer.id, params.id, body)
  return { done: true } as const
})
