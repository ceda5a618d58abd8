import { isTaken } from '../../fill/wayOut'
import { compile } from '../../expressions/compile'
import { print } from '../../expressions/print'
import { namesIn, type Expr } from '../../expressions/tree'
import type { PlannedPlace, Step } from '../../fill/planned'
import { ruleId } from '../../form/rules'
import type { Answers } from '../../form/answers'
import type { Filled } from '../../fill/frame'
import type { Marked } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'

/** The nearest that answers come to showing something that never shows, and the part of its rule that is not true then. */
export interface Miss {
  witness: Answers | null
  marked: Marked | null
}

/** A rule of more parts is not tried part by part: there are too many choices of them. */
const MOST_PARTS = 6

/**
 * Answers that lead to where something stands and make as many parts of its rule true together as can be.
 * @param near the section that they lead to: its own, or for a section the one before it; negative where there is none
 */
export function findNearestMiss(
  inquiry: Inquiry,
  thing: Pick<PlannedPlace, 'place'> | Step,
  near: number,
): Miss {
  const id = ruleId(thing.place, 'shownWhen', 0)
  const rule = inquiry.model.rules.find(r => r.id === id)
  const plain = { witness: near < 0 ? null : inquiry.wayTo(near), marked: null }
  if (near < 0 || !rule?.expr || thing.place.entryOf !== null) return plain
  const parts = partsOf(rule.expr)
  if (parts.length > MOST_PARTS) return plain
  for (const kept of choicesOf(parts)) {
    const witness = inquiry.witness(missGoal(inquiry, thing, near, kept))
    const failing = parts.filter(p => !kept.includes(p))
    if (witness) return { witness, marked: markParts(rule.text, parts, failing) }
  }
  return plain
}

/** The parts of a condition that all have to be true. */
const partsOf = (expr: Expr): Expr[] => (expr.kind === 'and' ? expr.parts.flatMap(partsOf) : [expr])

/** Every choice of some parts but not all of them, the largest first. */
function choicesOf(parts: readonly Expr[]): Expr[][] {
  const all = Array.from({ length: 2 ** parts.length - 1 }, (_, bits) =>
    parts.filter((_, i) => ((bits >> i) & 1) === 1),
  )
  return all.sort((a, b) => b.length - a.length)
}

/** A rule’s text with the parts that fail marked, where they stand side by side; else the first of them. */
function markParts(text: string, parts: readonly Expr[], failing: readonly Expr[]): Marked | null {
  const [first] = failing
  const last = failing.at(-1)
  if (!first || !last || last.to > text.length) return null
  const isInARow = parts.indexOf(last) - parts.indexOf(first) === failing.length - 1
  return { text, from: first.from, to: isInARow ? last.to : first.to }
}

/** The goal: to stand where it would show, with some parts of its rule true. */
function missGoal(
  { model }: Inquiry,
  thing: Pick<PlannedPlace, 'place'> | Step,
  near: number,
  kept: readonly Expr[],
): Goal {
  const { place } = thing
  const around = 'shown' in thing && place.kind !== 'section' ? thing : null
  const runs = kept.map(part => compile(part, model.plan.environment))
  const section = model.plan.sections[near]?.place.order ?? -1
  const surroundings = place.groups.map(
    g => model.plan.places.find(p => p.address === g.address)?.order ?? -1,
  )
  const isThere = (state: Filled) =>
    [section, ...surroundings].every(order => state.inPlay[order] === true) &&
    !around?.skips.some(skip => isTaken(skip, state))
  return {
    key: `miss:${place.address}:${kept.map(part => print(part)).join('\u0001')}`,
    at: place,
    section: near,
    names: [...(around ? namesAround(model, around) : []), ...kept.flatMap(namesIn)],
    literals: space => [
      space.sectionShown(near),
      ...(around ? [space.aroundShown(around)] : []),
      ...kept.map(part => space.encoding.truth(part).t),
    ],
    isExact: true,
    holds: state => isThere(state) && runs.every(run => run(state.values) === true),
  }
}
