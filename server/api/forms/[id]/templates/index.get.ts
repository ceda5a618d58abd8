import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { listTemplates } from '../../../../services/documents/templates'

export default designerRoute(API.listTemplates, ({ db, params }) => listTemplates(db, params.id))
