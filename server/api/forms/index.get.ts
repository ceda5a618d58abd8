import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { listForms } from '../../services/drafts'

export default designerRoute(API.listForms, ({ db, designer }) => listForms(db, designer.id))
