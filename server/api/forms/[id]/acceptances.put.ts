import { Accepting } from '../../../../shared/api'
import { bodyOf, designerRoute, idOf } from '../../../http/route'
import { accept } from '../../../services/releases'
import { database } from '../../../store/current'

export default designerRoute(async (event, designer) =>
  accept(await database(), idOf(event), designer, await bodyOf(event, Accepting)),
)
