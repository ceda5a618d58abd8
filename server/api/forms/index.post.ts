import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { createForm } from '../../services/drafts'

export default designerRoute(API.createForm, ({ db, body, designer }) => createForm(db, body, designer.id))
