import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { loadOpening } from '../../../services/openings'

export default designerRoute(API.loadOpening, ({ db, params }) => loadOpening(db, params.id))
