import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { loadHistory } from '../../../services/history'

export default designerRoute(API.loadHistory, ({ db, params }) => loadHistory(db, params.id))
