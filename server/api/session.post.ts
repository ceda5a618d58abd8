import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { openSession } from '../http/session'
import { signIn } from '../services/people/signIn'

export default openRoute(API.signIn, async ({ db, event, body, doer }) => {
  const user = await signIn(db, body, doer.source, useRuntimeConfig().session.password)
  return { user: await openSession(event, db, user) }
})
