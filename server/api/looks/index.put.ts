import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { saveLook } from '../../services/looks'

export default designerRoute(API.saveLook, async ({ db, body }) => {
  await saveLook(db, body)
  return { done: true as const }
})
