import { Refusal } from '#shared/api/refusal'

/** What went wrong with a request, as a refusal for people: the server's own, or that it could not be reached. */
export function refusalOf(error: unknown): Refusal {
  const data = typeof error === 'object' && error !== null && 'data' in error ? error.data : null
  const inner = typeof data === 'object' && data !== null && 'data' in data ? data.data : data
  const read = Refusal.safeParse(inner)
  if (read.success) return read.data
  const status = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : 0
  return status > 0
    ? {
        code: 'server-error',
        sentence: `The server could not do this (${status}). Try again; nothing was changed.`,
      }
    : { code: 'unreachable', sentence: 'The server can’t be reached. Check the connection.' }
}
