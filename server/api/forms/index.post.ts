import { NewForm } from '../../../shared/api'
import { bodyOf, designerRoute } from '../../http/route'
import { createForm } from '../../services/drafts'
import { database } from '../../store/current'

export default designerRoute(async event => createForm(await database(), await bodyOf(event, NewForm)))
