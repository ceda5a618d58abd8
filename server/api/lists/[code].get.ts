import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { loadSharedList } from '../../services/sharedLists'

export default designerRoute(API.loadSharedList, ({ db, params }) => loadSharedList(db, params.code))
