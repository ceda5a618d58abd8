import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { listInbox } from '../../services/inbox'

export default designerRoute(API.listInbox, ({ db, designer, query }) => listInbox(db, designer, query))
