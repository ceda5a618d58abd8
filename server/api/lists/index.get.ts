import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { listSharedLists } from '../../services/sharedLists'

export default designerRoute(API.listSharedLists, ({ db, designer }) => listSharedLists(db, designer.id))
