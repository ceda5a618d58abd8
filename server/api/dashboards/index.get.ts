import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { listDashboards } from '../../services/dashboards'

export default designerRoute(API.listDashboards, async ({ db, designer }) => {
  return { dashboards: await listDashboards(db, designer.id) }
})
