import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { listAccessKeys } from '../../../../services/accessKeys'

export default designerRoute(API.listAccessKeys, ({ db, params }) => listAccessKeys(db, params.id))
