import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { listUnderWay } from '../../../services/underWay'

export default designerRoute(API.listUnderWay, ({ db, params }) => listUnderWay(db, params.id))
