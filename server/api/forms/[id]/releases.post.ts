import { NewRelease } from '../../../../shared/api'
import { bodyOf, designerRoute, idOf } from '../../../http/route'
import { release } from '../../../services/releases'
import { database } from '../../../store/current'

export default designerRoute(async (event, designer) => {
  const { revision } = await bodyOf(event, NewRelease)
  return release(await database(), idOf(event), designer, revision)
})
