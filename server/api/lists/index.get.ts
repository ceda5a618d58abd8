import { designerRoute } from '../../http/route'
import { sharedListsOf } from '../../services/sharedLists'
import { database } from '../../store/current'

export default designerRoute(async () => sharedListsOf(await database()))
