import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { removeLook } from '../../services/looks'

export default designerRoute(API.removeLook, async ({ db, query }) => {
  await removeLook(db, query.name)
  return { done: true as const }
})
