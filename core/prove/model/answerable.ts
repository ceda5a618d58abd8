import type { Expr } from '../../expressions/tree'
import type { Plan, PlannedQuestion } from '../../fill/planned'
import type { QuestionOf } from '../../form/questions'
import { valueKey } from '../../lists/listIndex'
import type { Domain } from './domain'
import type { PlannedTurn } from './turnPlan'

/** Whether a question has limits that no answer fits: nothing lies between them, or no choice of options is allowed. */
export function isUnanswerable({ place, offer }: PlannedQuestion, domain: Domain): boolean {
  const { node } = place
  if (node.type === 'choices' && offer) return offer.rows.size > 0 && !isChoosable(node, offer.rows)
  return domain.classes.length === 0
}

/** Whether some choice of options is neither too small nor too large, with nothing beside what stands alone. */
function isChoosable(
  { least = 1, most, writeIn, list }: QuestionOf<'choices'>,
  rows: ReadonlyMap<string, { alone?: boolean }>,
): boolean {
  const offered = [...rows.values()]
  const hasOwnText = writeIn !== undefined && list === undefined && !rows.has('other')
  const together = offered.filter(r => !r.alone).length + Number(hasOwnText)
  const isAloneEnough = least <= 1 && offered.some(r => r.alone)
  return isAloneEnough || (together >= least && (most ?? together) >= least)
}

/** Whether a choice may offer less than all of its rows. */
export const isNarrowed = ({ offer }: PlannedQuestion): boolean =>
  offer !== null && (offer.narrow !== null || offer.rules !== null)

/** Whether a choice may find nothing on offer: its rows are narrowed or ruled, and it is not plain that one always stays. */
export const mayOfferNothing = (
  plan: Plan,
  turns: readonly PlannedTurn[],
  question: PlannedQuestion,
): boolean =>
  isNarrowed(question) &&
  !('writeIn' in question.place.node && question.place.node.writeIn !== undefined) &&
  !followsParent(plan, turns, question)

/** Narrowed by a parent alone that is required wherever the choice shows, and each of whose rows has some below it. */
function followsParent(plan: Plan, turns: readonly PlannedTurn[], question: PlannedQuestion): boolean {
  const { place, offer } = question
  const link = offer?.rules === null ? linkIn(offer.narrow?.expr ?? null) : null
  const parent = link ? plan.byCode.get(link.parent) : undefined
  if (!link || !parent?.offer || place.entryOf !== null || !isSurelyAnswered(turns, parent, question))
    return false
  const below = offer?.index.column(link.column)
  return [...parent.offer.rows.keys()].every(code => below?.has(valueKey(code)) === true)
}

/** Whether a choice is answered by whoever answers another in its section. */
const isSurelyAnswered = (
  turns: readonly PlannedTurn[],
  { place, required, shown, parent }: PlannedQuestion,
  other: PlannedQuestion,
): boolean =>
  required === true &&
  shown === null &&
  (parent < 0 || parent === other.parent) &&
  place.section === other.place.section &&
  turns.every(turn => turn.fills(place) || !turn.fills(other.place))

/** `row.column = parent`, and nothing else. */
function linkIn(expr: Expr | null): { column: string; parent: string } | null {
  if (expr?.kind !== 'compare' || expr.op !== '=') return null
  const sides = [expr.left, expr.right]
  const column = sides.flatMap(s =>
    s.kind === 'path' && s.of.kind === 'name' && s.of.name === 'row' ? s.member : [],
  )
  const parent = sides.flatMap(s => (s.kind === 'name' && s.name !== 'row' ? s.name : []))
  const [c, p] = [column[0], parent[0]]
  return c !== undefined && p !== undefined ? { column: c, parent: p } : null
}
