import { API } from '../../shared/api/endpoints'
import { designerRoute } from '../http/route'
import { listOpenTurns } from '../services/openTurns'

export default designerRoute(API.listOpenTurns, ({ db, designer }) => listOpenTurns(db, designer))
