import { getRequestHeader, type H3Event } from 'h3'
import { refuse } from './refuse'

/** The key with which a program asks (RFC 6750). */
export function bearerOf(event: H3Event): string {
  const [, key] = /^Bearer ([\w-]{20,80})$/i.exec(getRequestHeader(event, 'authorization') ?? '') ?? []
  return key ?? refuse(401, 'no-key', 'Give a key of the form: “Authorization: Bearer …”.')
}
