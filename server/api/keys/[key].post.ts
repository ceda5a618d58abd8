import { API } from '../../../shared/api/endpoints'
import { openRoute } from '../../http/route'
import { openSession } from '../../http/session'
import { choosePassword } from '../../services/people/oneTimeKeys'
import { keepRecord } from '../../services/people/record'
import { countTry } from '../../services/people/tallies'
import { refuseWithoutCode } from '../../services/people/signIn'

export default openRoute(API.choosePassword, async ({ db, event, params, body, doer }) => {
  await countTry(db, 'keyBySource', doer.source)
  const { user, kind } = await choosePassword(db, params.key, body.password)
  const own = { ...doer, id: user.id, name: user.name }
  await keepRecord(db, own, kind === 'invite' ? 'joined' : 'password reset')
  // Who has a second factor signs in with it: a letter alone opens nothing.
  if (user.totpConfirmed) return refuseWithoutCode()
  return { user: await openSession(event, db, user) }
})
