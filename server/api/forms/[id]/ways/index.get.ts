import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { listWays } from '../../../../services/ways'

export default designerRoute(API.listWays, ({ db, params }) => listWays(db, params.id))
