import type { Edit } from '#core/form/edits'
import type { EditStep } from './useEditHistory'

/** Whether something stands inside something else. */
type IsWithin = (what: string, container: string) => boolean

/**
 * A step without what others have changed since: undone or made again, it touches only what is still one's own.
 * Null: nothing of it is left to take back.
 */
export function withoutOvertaken(
  step: EditStep,
  theirs: readonly Edit[],
  isWithin: IsWithin,
): EditStep | null {
  const left = (edits: readonly Edit[]) =>
    theirs.reduce<readonly Edit[]>((rest, t) => rest.flatMap(own => leftOf(own, t, isWithin) ?? []), edits)
  const back = left(step.back)
  return back.length === 0 ? null : { ...step, back, forward: left(step.forward) }
}

/** What is left of an own edit after theirs; null: nothing. */
function leftOf(own: Edit, theirs: Edit, isWithin: IsWithin): Edit | null {
  // Any earlier state brought back would take theirs with it.
  if (own.do === 'replace') return null
  if (own.do === 'insert' || !('what' in theirs)) return own
  const isIn = theirs.what === own.what || isWithin(theirs.what, own.what)
  // Taking out what was put in would take their words with it.
  if (own.do === 'remove') return isIn ? null : own
  if (theirs.do === 'move' && own.do === 'move' && theirs.what === own.what) return null
  if (theirs.do !== 'change' || own.do !== 'change' || theirs.what !== own.what) return own
  const kept = Object.entries(own.set).filter(([key]) => !(key in theirs.set))
  if (kept.length === 0) return null
  const { keys: _, ...edit } = own
  return kept.length === Object.keys(own.set).length ? own : { ...edit, set: Object.fromEntries(kept) }
}
