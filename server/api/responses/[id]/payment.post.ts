import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { actOnPayment } from '../../../services/payments'

export default designerRoute(API.actOnPayment, async ({ db, params, body, designer }) => {
  await actOnPayment(db, params.id, body.do, designer.name)
  return { done: true } as const
})
