import { API } from '../../shared/api/endpoints'
import { designerRoute } from '../http/route'
import { loadDirectory } from '../services/people/teams'

export default designerRoute(API.loadDirectory, ({ db }) => loadDirectory(db))
