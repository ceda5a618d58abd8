import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { loadAccount } from '../../services/people/account'

export default designerRoute(API.loadAccount, ({ db, designer }) => loadAccount(db, designer))
