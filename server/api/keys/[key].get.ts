import { API } from '../../../shared/api/endpoints'
import { openRoute } from '../../http/route'
import { openKey } from '../../services/people/oneTimeKeys'
import { countTry } from '../../services/people/tallies'

export default openRoute(API.openKey, async ({ db, params, doer }) => {
  await countTry(db, 'keyBySource', doer.source)
  const { kind, user } = await openKey(db, params.key)
  return { kind, name: user.name, email: user.email }
})
