import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { loadPageSteps } from '../../../services/pageSteps'

export default designerRoute(API.loadPageSteps, ({ db, params, query }) =>
  loadPageSteps(db, params.id, query.release),
)
