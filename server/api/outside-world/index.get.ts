import { API } from '../../../shared/api/endpoints'
import { refuse } from '../../http/refuse'
import { designerRoute } from '../../http/route'
import { loadOutsideWorld } from '../../stand-ins/receiver'

/** Only in the demonstration: letters and hooks hold what respondents wrote. */
export default designerRoute(API.loadOutsideWorld, ({ db }) => {
  if (useRuntimeConfig().demo === '')
    return refuse(404, 'not-found', 'The world outside is only simulated, and shown, in the demonstration.')
  return loadOutsideWorld(db)
})
