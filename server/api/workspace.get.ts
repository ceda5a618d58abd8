import { API } from '../../shared/api/endpoints'
import { designerRoute } from '../http/route'
import { loadWorkspace } from '../services/workspace'

export default designerRoute(API.loadWorkspace, ({ db }) => loadWorkspace(db))
