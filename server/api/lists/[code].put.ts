import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { saveSharedList } from '../../services/sharedLists'

export default designerRoute(API.saveSharedList, ({ db, params, body, designer }) =>
  saveSharedList(db, designer, params.code, body),
)
