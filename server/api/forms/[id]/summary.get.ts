import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { summariseResponses } from '../../../services/summaries'

export default designerRoute(API.summariseResponses, ({ db, params, query }) =>
  summariseResponses(db, params.id, query),
)
