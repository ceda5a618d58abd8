import { API } from '../../shared/api/endpoints'
import { designerRoute } from '../http/route'
import { listRecord } from '../services/people/record'

export default designerRoute(API.listRecord, ({ db, query }) => listRecord(db, query))
