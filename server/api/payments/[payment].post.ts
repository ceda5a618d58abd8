import { API } from '../../../shared/api/endpoints'
import { openRoute } from '../../http/route'
import { pay } from '../../services/payments'

export default openRoute(API.pay, ({ db, params }) => pay(db, params.payment))
