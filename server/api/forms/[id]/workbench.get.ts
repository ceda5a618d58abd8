import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { loadWorkbench } from '../../../services/workbench'

export default designerRoute(API.loadWorkbench, ({ db, params, designer }) =>
  loadWorkbench(db, params.id, designer.id),
)
