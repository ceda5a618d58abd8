import { API } from '../../../../shared/api/endpoints'
import { refuse } from '../../../http/refuse'
import { designerRoute } from '../../../http/route'
import { postKey } from '../../../services/people/oneTimeKeys'
import { loadUser } from '../../../services/people/people'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.inviteAgain, async ({ db, designer, params, doer }) => {
  const user = await loadUser(db, params.id)
  if (user.passwordHash !== null) refuse(409, 'joined', `${user.name} has joined already.`)
  if (user.suspendedAt !== null) refuse(409, 'suspended', `${user.name} is suspended.`)
  const link = await postKey(db, user, 'invite', designer.name)
  await keepRecord(db, doer, 'invited', { about: user.email, details: { role: user.role } })
  return { link }
})
