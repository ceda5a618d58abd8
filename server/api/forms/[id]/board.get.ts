import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { loadBoard } from '../../../services/board'

export default designerRoute(API.loadBoard, ({ db, params, query }) => loadBoard(db, params.id, query))
