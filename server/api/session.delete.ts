import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { closeSession } from '../http/session'
import { keepRecord } from '../services/people/record'

export default openRoute(API.signOut, async ({ db, event, doer }) => {
  if (doer.id !== null) await keepRecord(db, doer, 'signed out')
  await closeSession(event, db)
  return { done: true as const }
})
