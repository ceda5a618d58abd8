import { createHmac } from 'node:crypto'
import { parseCookies, type H3Event } from 'h3'
import type { LinkUse } from '../services/links'
import { sourceOf } from './source'

/** The name of the cookie in which a browser has the pass of a form; each form has its own. */
const PASS = 'tobbin-pass-'
export const passCookieOf = (formId: string): string => `${PASS}${formId}`

/** Whoever opens a link by a request: what stands in it, as whom they are signed in, and which passphrases they have entered. */
export function linkUseOf(event: H3Event, token: string, caller: LinkUse['caller']): LinkUse {
  const passes = Object.entries(parseCookies(event)).flatMap(([name, value]) =>
    name.startsWith(PASS) ? [value] : [],
  )
  return { token, caller, passes, source: maskedSourceOf(event) }
}

/** Where a request comes from, as what is counted by: nobody reads an address out of it. */
export const maskedSourceOf = (event: H3Event): string =>
  createHmac('sha256', useRuntimeConfig().session.password).update(sourceOf(event)).digest('base64url')
