import { admit } from '../http/guard'
import { refuse } from '../http/refuse'
import { isOwnOrigin } from '../http/securityHeaders'
import { answering } from '../http/route'
import { readCaller } from '../http/session'
import { database } from '../store/current'

/** The session as the sign-in package tells it to pages: only of the browser that asks. */
const OWN_SESSION = '/api/_auth/session'

/** Every request to a route is let through here, or it is not answered. */
export default answering(async event => {
  const path = event.path.split('?')[0] ?? ''
  if (!path.startsWith('/api/')) return
  const isReading = event.method === 'GET' || event.method === 'HEAD'
  if (!isReading && !isOwnOrigin(event))
    refuse(403, 'foreign-origin', 'This request comes from a page of another site; nothing was done.')
  if (path === OWN_SESSION) return
  const db = await database()
  event.context.admission = await admit(event, db, path, await readCaller(event, db))
})
