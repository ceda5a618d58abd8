import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { makeShortAddress } from '../../../services/openings'

export default designerRoute(API.makeShortAddress, async ({ db, params }) => ({
  code: await makeShortAddress(db, params.id),
}))
