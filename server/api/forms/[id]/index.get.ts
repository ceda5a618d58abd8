import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { loadForm } from '../../../services/loadForm'

export default designerRoute(API.loadForm, ({ db, params, powers }) => loadForm(db, params.id, powers))
