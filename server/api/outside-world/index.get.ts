import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { loadOutsideWorld } from '../../stand-ins/receiver'

export default designerRoute(API.loadOutsideWorld, ({ db }) => loadOutsideWorld(db))
