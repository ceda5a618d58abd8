import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { openSession } from '../http/session'
import { keepRecord } from '../services/people/record'
import { setUp } from '../services/people/setUp'
import { countTry } from '../services/people/tallies'

export default openRoute(API.setUp, async ({ db, event, body, doer }) => {
  await countTry(db, 'setUpBySource', doer.source)
  const user = await setUp(db, body)
  await keepRecord(db, { ...doer, id: user.id, name: user.name }, 'set up')
  return { user: await openSession(event, db, user) }
})
