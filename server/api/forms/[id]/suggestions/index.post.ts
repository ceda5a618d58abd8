import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { suggest } from '../../../../services/suggestions'

export default designerRoute(API.suggest, async ({ db, params, body, designer }) => {
  await suggest(db, params.id, designer.id, body)
  return { done: true } as const
})
