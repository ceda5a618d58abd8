import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { acceptRisk } from '../../../services/acceptances'

export default designerRoute(API.acceptRisk, ({ db, params, body, designer }) =>
  acceptRisk(db, params.id, designer, body),
)
