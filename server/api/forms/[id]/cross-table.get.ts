import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { crossResponses } from '../../../services/summaries'

export default designerRoute(API.crossResponses, ({ db, params, query }) =>
  crossResponses(db, params.id, query),
)
