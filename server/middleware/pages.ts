import { defineEventHandler, getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { findKeptPage } from '../http/keptPages'
import { allowFraming } from '../http/securityHeaders'
import { findEntrance } from '../services/entrances'
import { respondentPageKey } from '../services/respondentPageKey'
import { database } from '../store/current'

declare module 'h3' {
  interface H3EventContext {
    /** Under what the page that is being drawn is kept ready; none for pages of one person. */
    pageKey?: string
  }
}

const LINK = /^\/f\/([\w-]+)$/
const ANY_LINK = /^\/f\/([\w~-]+)(?:\?|$)/

/** The first page of a release is the same for all strangers: drawn once, it is given to the next as it is. What is asked for with a cookie or parameters is drawn for itself. */
export default defineEventHandler(async event => {
  await allowFrame(event)
  const token = LINK.exec(event.path)?.[1]
  const isPlain = event.method === 'GET' && getRequestHeader(event, 'cookie') === undefined
  if (import.meta.dev || token === undefined || !isPlain) return
  const key = await keyOf(token)
  if (key === null) return
  const page = findKeptPage(key, event.context.nonce ?? '')
  if (page === null) {
    event.context.pageKey = key
    return
  }
  setResponseHeader(event, 'content-type', 'text/html;charset=utf-8')
  return page
})

/** What fails here fails again where the page is drawn, and is told and logged there. */
async function keyOf(token: string): Promise<string | null> {
  try {
    return await respondentPageKey(await database(), token)
  } catch {
    return null
  }
}

/** Lets the sites that a form names show it inside their pages. Browsers say themselves that they load a frame (Fetch Metadata). */
async function allowFrame(event: H3Event): Promise<void> {
  const token = ANY_LINK.exec(event.path)?.[1]
  if (token === undefined || getRequestHeader(event, 'sec-fetch-dest') !== 'iframe') return
  const entrance = await findEntrance(await database(), token)
  const sites = entrance?.settings?.embedOn ?? []
  if (sites.length > 0) allowFraming(event, sites)
}
