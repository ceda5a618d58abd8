import { randomBytes } from 'node:crypto'

/** How many pages are kept ready. */
const MOST = 40
/** Stands where each answer has a nonce of its own; nobody outside knows it. */
const NONCE = randomBytes(24).toString('base64url')
const pages = new Map<string, string>()

/** A page that was drawn before for the same key, with the nonce of this answer; null when there is none. */
export function findKeptPage(key: string, nonce: string): string | null {
  const page = pages.get(key)
  if (page === undefined) return null
  pages.delete(key)
  pages.set(key, page)
  return page.replaceAll(NONCE, nonce)
}

/** Keeps a page that was drawn with a nonce; the one that was asked for longest ago makes room. */
export function keepPage(key: string, page: string, nonce: string): void {
  pages.set(key, page.replaceAll(nonce, NONCE))
  const [oldest] = pages.keys()
  if (pages.size > MOST && oldest !== undefined) pages.delete(oldest)
}
