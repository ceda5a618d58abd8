import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { closeSession } from '../http/session'

export default openRoute(API.signOut, async ({ event }) => {
  await closeSession(event)
  return { done: true as const }
})
