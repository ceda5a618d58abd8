import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { listResponses } from '../../../../services/responseTable'

export default designerRoute(API.listResponses, ({ db, params, query }) =>
  listResponses(db, params.id, query),
)
