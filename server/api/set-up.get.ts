import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { isWaitingForSetUp } from '../services/people/setUp'

export default openRoute(API.loadSetUp, async ({ db }) => ({ isOpen: await isWaitingForSetUp(db) }))
