import { randomBytes } from 'node:crypto'
import {
  getRequestHeader,
  removeResponseHeader,
  setResponseHeader,
  setResponseHeaders,
  type H3Event,
} from 'h3'

declare module 'h3' {
  interface H3EventContext {
    /** What this answer's own scripts and styles are marked with; any other inline one is not run. */
    nonce?: string
  }
}

/** Inline styles that a page may have. With `npm run dev` every style is put into the page anew when its file changes, unmarked. */
const ownStyles = (nonce: string) => (import.meta.dev ? "'unsafe-inline'" : `'nonce-${nonce}'`)

/** Content Security Policy, level 3. Styles of single elements are set by the interface library, and can't load or run anything. */
const policyOf = (nonce: string, framedBy = "'none'") =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'`,
    `style-src 'self' ${ownStyles(nonce)}`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    `frame-ancestors ${framedBy}`,
  ].join('; ')

/** Sets what every answer carries; pages and answers of routes are kept by no cache. `isTls`: the browser came by https. */
export function setSecurityHeaders(event: H3Event, isTls: boolean): void {
  const nonce = randomBytes(18).toString('base64')
  event.context.nonce = nonce
  setResponseHeaders(event, {
    'content-security-policy': policyOf(nonce),
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    'referrer-policy': 'strict-origin-when-cross-origin',
    'cross-origin-opener-policy': 'same-origin',
    'permissions-policy': 'camera=(self), geolocation=(), microphone=()',
  })
  if (isTls) setResponseHeaders(event, { 'strict-transport-security': 'max-age=31536000' })
  if (!event.path.startsWith('/_nuxt/')) setResponseHeaders(event, { 'cache-control': 'no-store' })
}

/** Lets pages of some sites show this answer inside a frame. `sites`: as in Content Security Policy. */
export function allowFraming(event: H3Event, sites: readonly string[]): void {
  const policy = policyOf(event.context.nonce ?? '', sites.join(' '))
  setResponseHeader(event, 'content-security-policy', policy)
  removeResponseHeader(event, 'x-frame-options')
}

/**
 * Whether a request that changes something comes from a page of ours. Browsers say the origin with every such request (Fetch standard);
 * what says none, and nothing of its site, is no browser, and carries no one's session by accident.
 */
export function isOwnOrigin(event: H3Event): boolean {
  const origin = getRequestHeader(event, 'origin')
  const host = getRequestHeader(event, 'host') ?? ''
  if (origin === undefined) {
    const site = getRequestHeader(event, 'sec-fetch-site')
    return site === undefined || site === 'same-origin' || site === 'none'
  }
  try {
    return new URL(origin).host === host
  } catch {
    return false // “null”: a sandboxed page, or one that hides where it comes from
  }
}
