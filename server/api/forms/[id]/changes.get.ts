import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { loadChanges } from '../../../services/history'

export default designerRoute(API.loadChanges, ({ db, params, query, designer }) =>
  loadChanges(db, params.id, query.since, designer.id),
)
