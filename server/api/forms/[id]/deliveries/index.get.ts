import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { listDeliveries } from '../../../../services/deliveries/log'

export default designerRoute(API.listDeliveries, ({ db, params, query, powers }) =>
  listDeliveries(db, params.id, query, powers),
)
