import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { listShares } from '../../../services/people/sharing'

export default designerRoute(API.listShares, ({ db, params }) => listShares(db, params.id))
