import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { forgetPassword } from '../services/people/signIn'

export default openRoute(API.forgetPassword, async ({ db, body, doer }) => {
  await forgetPassword(db, body.email, doer.source)
  return { done: true as const }
})
