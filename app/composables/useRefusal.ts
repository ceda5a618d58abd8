import type { Refusal } from '#shared/api/refusal'

/** What went wrong with a request, as a refusal for people: the server's own, or that it could not be reached. */
export function refusalOf(error: unknown): Refusal {
  const data = isObject(error) ? error.data : null
  const inner: unknown = isObject(data) && 'data' in data ? data.data : data
  if (isRefusal(inner)) return inner
  const status = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : 0
  return status > 0
    ? {
        code: 'server-error',
        sentence: `The server could not do this (${status}). Try again; nothing was changed.`,
      }
    : { code: 'unreachable', sentence: 'The server can’t be reached. Check the connection.' }
}

/** What stands over a link that can’t be opened, by the code of the refusal. */
const TITLES: Readonly<Record<string, string>> = {
  'not-open-yet': 'Not open yet',
  'closed-for-now': 'Closed for now',
  closed: 'Closed',
  full: 'Full',
  answered: 'Answered already',
  'not-invited': 'Not for you',
  passphrase: 'Passphrase',
}
export const titleOfRefusal = (code: string): string => TITLES[code] ?? 'This form can’t be opened'

const isRefusal = (value: unknown): value is Refusal => {
  if (!isObject(value) || typeof value.code !== 'string' || typeof value.sentence !== 'string') return false
  const { problems } = value
  return problems === undefined || (Array.isArray(problems) && problems.every(isProblem))
}
const isProblem = (p: unknown) => isObject(p) && typeof p.path === 'string' && typeof p.sentence === 'string'
