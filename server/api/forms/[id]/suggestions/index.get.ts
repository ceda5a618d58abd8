import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { listSuggestions } from '../../../../services/suggestions'

export default designerRoute(API.listSuggestions, ({ db, params, designer }) =>
  listSuggestions(db, params.id, designer.id),
)
