import { designerRoute, idOf } from '../../http/route'
import { responseById } from '../../services/answering'
import { database } from '../../store/current'

export default designerRoute(async event => responseById(await database(), idOf(event)))
