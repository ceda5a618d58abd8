import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { createForm } from '../../services/drafts'

export default designerRoute(API.createForm, ({ db, body }) => createForm(db, body))
