import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { loadResponse } from '../../services/responses'

export default designerRoute(API.loadResponse, ({ db, params }) => loadResponse(db, params.id))
