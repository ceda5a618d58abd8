import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { actOnTurn } from '../../../services/turnActs'

export default designerRoute(API.actOnTurn, async ({ db, params, body, designer }) => ({
  link: await actOnTurn(db, params.id, body, designer),
}))
