import { openRoute } from '../http/route'

export default openRoute(async event => {
  await clearUserSession(event)
  return { done: true }
})
