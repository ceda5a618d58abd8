import { designerRoute, idOf } from '../../../http/route'
import { historyOf } from '../../../services/drafts'
import { database } from '../../../store/current'

export default designerRoute(async event => historyOf(await database(), idOf(event)))
