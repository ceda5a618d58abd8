import { designerRoute } from '../../http/route'
import { listForms } from '../../services/drafts'
import { database } from '../../store/current'

export default designerRoute(async () => listForms(await database()))
