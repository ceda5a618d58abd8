import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { releaseForm } from '../../../services/releases'

export default designerRoute(API.releaseForm, ({ db, params, body, designer }) =>
  releaseForm(db, params.id, designer, body.revision),
)
