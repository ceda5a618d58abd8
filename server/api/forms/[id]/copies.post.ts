import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { copyForm } from '../../../services/keepForms'

export default designerRoute(API.copyForm, ({ db, params, body, designer }) =>
  copyForm(db, params.id, body.title, designer.id),
)
