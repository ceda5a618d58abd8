import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { listPeople } from '../../services/people/people'

export default designerRoute(API.listPeople, ({ db }) => listPeople(db))
