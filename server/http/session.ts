import type { H3Event } from 'h3'
import { Designer } from '../../shared/api/session'

// The cookie is sealed with NUXT_SESSION_PASSWORD by nuxt-auth-utils; its life is set in nuxt.config.ts (runtimeConfig.session).

/** Begins a session: from here on the browser's requests are the designer's. */
export async function openSession(event: H3Event, user: Designer): Promise<void> {
  await setUserSession(event, { user })
}

/** Who sends a request; null without a session, or with one that is over. */
export async function readDesigner(event: H3Event): Promise<Designer | null> {
  const { user } = await getUserSession(event)
  const read = Designer.safeParse(user)
  return read.success ? read.data : null
}

/** Ends the session of a browser. */
export async function closeSession(event: H3Event): Promise<void> {
  await clearUserSession(event)
}
