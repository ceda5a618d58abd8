import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { deliverAgain } from '../../../../services/deliveries/log'
import { soon } from '../../../../services/deliveries/soon'

export default designerRoute(API.deliverAgain, async ({ db, params }) => {
  await deliverAgain(db, params.id, params.run)
  soon()
  return { done: true } as const
})
