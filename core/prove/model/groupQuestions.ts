import { print } from '../../expressions/print'
import { namesIn, nodesOf, type Expr } from '../../expressions/tree'
import type { Plan, PlannedGroup } from '../../fill/planned'
import { isQuestion, ownRules } from '../../fill/steps'

/** A repeating group that rules look into from outside of it. */
export interface Entries {
  group: PlannedGroup
  /** How many of its entries are told apart. */
  copies: number
  /** These are enough: whatever a rule finds in some entry, it can be taken to find in one of them. Else further ones may hold anything. */
  enough: boolean
  /** The questions of an entry that such rules ask for. */
  members: readonly string[]
}

/** Entries told apart, at least and at most, where rules find out more about them. */
const COPIES = 3
const MOST_COPIES = 16
/** A group of no more entries than this has all of them told apart; so many are where no number is enough. */
const FEW_COPIES = 6
/** What rules ask of a group: which questions, up to which entry by number, and how many things that one entry each is enough to show. */
export interface AskedOfGroup {
  members: Set<string>
  number: number
  facts: Map<string, number>
}

/** What expressions ask of repeating groups from outside of them. */
export function askedOfGroups(plan: Plan, expressions: readonly Expr[]): Map<PlannedGroup, AskedOfGroup> {
  const asked = new Map<PlannedGroup, AskedOfGroup>()
  for (const expr of expressions) {
    const nodes = nodesOf(expr)
    const groups = nodes.flatMap(n => (n.kind === 'name' ? (plan.groups.get(n.name) ?? []) : []))
    for (const group of new Set(groups)) {
      const found = asked.get(group) ?? { members: new Set<string>(), number: 0, facts: new Map() }
      asked.set(group, found)
      noteAsked(expr, nodes, group, found)
    }
  }
  return asked
}

function noteAsked(expr: Expr, nodes: readonly Expr[], group: PlannedGroup, found: AskedOfGroup) {
  for (const [what, entries] of factsAsked(expr, group)) found.facts.set(what, entries)
  for (const code of membersOf(group)) if (nodes.some(n => isNamed(n, code))) found.members.add(code)
  for (const n of nodes)
    if (n.kind === 'filter' && n.by.kind === 'number' && typeof n.by.value === 'number')
      found.number = Math.max(found.number, n.by.value)
}

const isNamed = (n: Expr, code: string): boolean =>
  (n.kind === 'path' && n.member === code) || (n.kind === 'name' && n.name === code)

/** The entries of a group that are told apart, by what is asked of them. */
export function entriesOf(group: PlannedGroup, { members, number, facts }: AskedOfGroup): Entries {
  const needed = number + [...facts.values()].reduce((sum, n) => sum + n, 0)
  const inside = group.inner.some(s =>
    [...ownRules(s), ...s.checks].some(r => r.expr && namesIn(r.expr).includes(group.place.code)),
  )
  const wanted = needed <= MOST_COPIES ? Math.max(COPIES, group.min, needed) : FEW_COPIES
  const copies = group.max <= FEW_COPIES ? group.max : Math.min(group.max, MOST_COPIES, wanted)
  return { group, members: [...members], copies, enough: needed <= copies && !inside }
}

/**
 * How many entries it takes to show all that a condition can find out about a list: that something holds for one, that it does not fail for one,
 * that one is the greatest. Entries are alike to conditions but for their numbers, so these can be taken to be the ones that are told apart.
 * By what is asked: the same asked twice takes no more.
 */
function* factsAsked(expr: Expr, group: PlannedGroup): Generator<[string, number]> {
  const asks = (e: Expr) => namesIn(e).includes(group.place.code)
  for (const n of nodesOf(expr)) {
    if (n.kind === 'quantified' && asks(n.over)) yield [print(n), asks(n.satisfies) ? Infinity : 2]
    if (n.kind === 'filter' && asks(n.of) && n.by.kind !== 'number')
      yield [print(n), asks(n.by) ? Infinity : 2]
    const [list] = n.kind === 'call' ? n.args : []
    if (n.kind === 'call' && list && asks(list)) yield [print(n), ASKED_BY[n.name] ?? 0]
  }
}
const ASKED_BY: Readonly<Record<string, number>> = {
  'list contains': 1,
  sum: 1,
  any: 2,
  all: 2,
  min: 2,
  max: 2,
}

/** The codes of the questions that an entry holds, those of entries inside it left out. */
export const membersOf = (group: PlannedGroup): string[] =>
  group.steps.flatMap(s => (isQuestion(s) ? [s.place.code] : []))
