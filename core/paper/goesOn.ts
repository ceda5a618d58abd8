import { parseCached, ExpressionError } from '../expressions/parse'
import type { Expr } from '../expressions/tree'
import type { Place, PlaceOf } from '../form/walk'
import { bool, replaceName, simplify } from '../prove/effects/conditions'

/** An answer that a box on paper stands for, as rules compare to it. */
export type BoxAnswer = boolean | string

/**
 * Where whoever gives an answer to a question goes on, as far as that answer alone decides it: what follows and is never asked then, is passed
 * over.
 * @param following what stands behind the question, in the order of the form
 * @returns the first thing that may still be asked; `end` where nothing is; null where nothing is passed over
 */
export function placeAfter(
  { code }: PlaceOf<'question'>,
  answer: BoxAnswer,
  following: readonly Place[],
  around: readonly Place[],
): Place | 'end' | null {
  const excluded = new Map<Place, boolean>()
  const isExcluded = (place: Place): boolean => {
    const known = excluded.get(place)
    if (known !== undefined) return known
    const rule = 'shownWhen' in place.node ? place.node.shownWhen : undefined
    const made = rule !== undefined && isFalseWith(rule, code, answer)
    excluded.set(place, made)
    return made
  }
  const sectionOf = (place: Place) => around.find(p => p.kind === 'section' && p.section === place.section)
  const isPassed = (place: Place) =>
    [sectionOf(place), ...place.groups, place].some(p => p !== undefined && isExcluded(p))
  const asked = following.filter(isAskedOnPaper)
  const next = asked.find(place => !isPassed(place))
  if (next === asked[0]) return null
  return next ?? 'end'
}

/** Whether something has a line of its own on paper, to be answered. */
export const isAskedOnPaper = ({ kind, node }: Place): boolean =>
  kind === 'question' && 'type' in node && node.type !== 'hidden' && node.type !== 'value'

/** Whether a condition is false with an answer, whatever the others are. */
function isFalseWith(rule: string, code: string, answer: BoxAnswer): boolean {
  try {
    const made = simplify(replaceName(parseCached(rule), code, literal(answer)))
    return made.kind === 'boolean' && !made.value
  } catch (error) {
    if (error instanceof ExpressionError) return false
    throw error
  }
}

const literal = (answer: BoxAnswer): Expr =>
  typeof answer === 'boolean' ? bool(answer) : { kind: 'text', value: answer, from: 0, to: 0 }
