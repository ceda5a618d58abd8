import { createHash } from 'node:crypto'
import type { Sending } from '../../shared/api/answering'
import { refuse } from '../http/refuse'

/** A digest of what is sent, whatever the order in which its parts stand. */
export const digestOfSending = ({ begunOn, answers }: Pick<Sending, 'begunOn' | 'answers'>): string =>
  createHash('sha256')
    .update(JSON.stringify([begunOn, inKeyOrder(answers)]))
    .digest('base64url')

/** A value with the parts of each object in the order of their names: the store gives them back in one of its own. */
export function inKeyOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inKeyOrder)
  if (typeof value !== 'object' || value === null) return value
  return Object.entries(value)
    .toSorted(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, inner]) => [key, inKeyOrder(inner)])
}

/** Refuses other answers under the key of a sending that was taken: they would be lost silently. `taken` null: from before digests were kept. */
export function refuseOtherAnswers(taken: string | null, sending: Sending): void {
  if (taken === null || taken === digestOfSending(sending)) return
  refuse(
    409,
    'sent-before',
    'Other answers were sent from this page already, and are kept. Reload the page to begin another response; these were not stored.',
  )
}
