import { getCookie, type H3Event } from 'h3'
import type { Designer } from '../../shared/api/session'
import { beginSession, endSession, findCaller, type Caller } from '../services/people/sessions'
import type { Database } from '../store/database'
import { agentOf, sourceOf } from './source'

// The cookie is sealed with NUXT_SESSION_PASSWORD by nuxt-auth-utils; how long a session lives is the store's matter (services/people/sessions).

/** The name of the cookie, as in nuxt.config.ts. */
const COOKIE = 'tobbin-session'

/** Begins a session: from here on the browser's requests are this person's. One that the browser had before ends. */
export async function openSession(
  event: H3Event,
  db: Database,
  { id, name, email, role }: Designer,
): Promise<Designer> {
  await closeSession(event, db)
  const token = await beginSession(db, id, { source: sourceOf(event), agent: agentOf(event) })
  const user = { id, name, email, role }
  await setUserSession(event, { user, secure: { token } })
  return user
}

/** The token in the cookie of a request; null where there is none. Who has no cookie gets none by being asked. */
async function tokenOf(event: H3Event): Promise<string | null> {
  if (!getCookie(event, COOKIE)) return null
  const { secure } = await getUserSession(event)
  return typeof secure?.token === 'string' ? secure.token : null
}

/** Who sends a request; null without a session, or with one that is over. */
export async function readCaller(event: H3Event, db: Database): Promise<Caller | null> {
  const token = await tokenOf(event)
  return token === null ? null : findCaller(db, token)
}

/** Ends the session of a browser. */
export async function closeSession(event: H3Event, db: Database): Promise<void> {
  const token = await tokenOf(event)
  if (token === null) return
  await endSession(db, token)
  await clearUserSession(event)
}
