import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { loadState } from '../../../../services/history'

export default designerRoute(API.loadState, ({ db, params }) => loadState(db, params.id, params.revision))
