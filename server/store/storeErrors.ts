import type { Refusal } from '../../shared/api/refusal'

/** What PostgreSQL and its driver say when the database is away; SQLSTATE classes of the PostgreSQL manual, appendix A. */
const AWAY = /^(?:08|57P)|^(?:ECONNREFUSED|ECONNRESET|ENOTFOUND|EPIPE|ETIMEDOUT)$/
const AWAY_WORDS = /connection terminated|timeout exceeded when trying to connect|Connection ended/i
const FULL = /^53100$|^ENOSPC$/
const SLOW = /^57014$/

interface Described {
  code: string
  message: string
}

/** An error and what caused it, from the outside in. */
function causesOf(error: unknown): Described[] {
  const causes: Described[] = []
  for (let at = error; at instanceof Error && causes.length < 5; at = at.cause)
    causes.push({ code: 'code' in at ? String(at.code) : '', message: at.message })
  return causes
}

/** What is said to people when the store can't do its work, with the status; null when an error is of another kind. */
export function refusalOfStore(error: unknown): { status: number; refusal: Refusal } | null {
  const causes = causesOf(error)
  const has = (code: RegExp) => causes.some(c => code.test(c.code))
  if (has(FULL))
    return refused(
      507,
      'store-full',
      'The disk of the server is full: nothing was stored. Whoever keeps the server has to make room; then send it again.',
    )
  if (has(SLOW))
    return refused(503, 'store-slow', 'This took the store too long, and was stopped. Try again.')
  if (has(AWAY) || causes.some(c => AWAY_WORDS.test(c.message)))
    return refused(503, 'store-away', 'The store can’t be reached just now. Try again in a moment.')
  return null
}

const refused = (status: number, code: string, sentence: string) => ({ status, refusal: { code, sentence } })

/** What is written to the log of an error: of a failed query its text and the database's code, never its parameters, nor a message that may quote them. */
export function describeForLog(error: unknown): string {
  if (!(error instanceof Error)) return 'An error that is none was thrown.'
  if (!('query' in error)) return error.stack ?? error.message
  const codes = causesOf(error)
    .map(c => c.code)
    .filter(Boolean)
  return `A query failed (${codes.join(', ') || 'no code'}): ${String(error.query).slice(0, 500)}`
}
