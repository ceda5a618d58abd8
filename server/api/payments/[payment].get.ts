import { API } from '../../../shared/api/endpoints'
import { openRoute } from '../../http/route'
import { loadPayment } from '../../services/payments'

export default openRoute(API.loadPayment, ({ db, params }) => loadPayment(db, params.payment))
