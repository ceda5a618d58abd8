import { API } from '../../shared/api/endpoints'
import { refuse } from '../http/refuse'
import { openRoute } from '../http/route'
import { openSession } from '../http/session'
import { findUser } from '../services/users'

export default openRoute(API.signIn, async ({ db, event, body }) => {
  const user = await findUser(db, body.email, body.password)
  if (!user) return refuse(401, 'wrong-sign-in', 'E-mail and password don’t fit together.')
  await openSession(event, user)
  return { user }
})
