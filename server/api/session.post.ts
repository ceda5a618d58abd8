import { SignIn } from '../../shared/api'
import { bodyOf, openRoute, refuse } from '../http/route'
import { userWith } from '../services/users'
import { database } from '../store/current'

export default openRoute(async event => {
  const { email, password } = await bodyOf(event, SignIn)
  const user = await userWith(await database(), email, password)
  if (!user) return refuse(401, 'wrong-sign-in', 'E-mail and password don’t fit together.')
  await setUserSession(event, { user })
  return { user }
})
