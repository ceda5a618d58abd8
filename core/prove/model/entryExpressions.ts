import { isParted } from './parts'
import { nodesOf, type Expr, type ExprOf } from '../../expressions/tree'
import { replaceParts } from '../../expressions/replace'
import type { Plan, PlannedGroup } from '../../fill/planned'
import type { Copies } from './entries'
import { codeAt, rowCode } from './entryCodes'
import { membersOf, type Entries } from './groupQuestions'
import { HERE } from './rewritten'

/** A name that nothing has: what is said with it can be anything. */
const unknown = (name: string): Expr => ({ kind: 'name', name: `\u0000${name}`, ...HERE })
/** The items that a list of entries stands for: all of a group, or those for which a condition holds. */
export interface Source {
  entries: Entries
  by: Expr | null
}
export function sourceOf(expr: Expr, copies: Copies): Source | null {
  if (expr.kind === 'name') {
    const entries = copies.of.get(expr.name)
    return entries ? { entries, by: null } : null
  }
  if (
    expr.kind !== 'filter' ||
    expr.of.kind !== 'name' ||
    expr.by.kind === 'number' ||
    expr.by.kind === 'negate'
  )
    return null
  const entries = copies.of.get(expr.of.name)
  // What stands in inner brackets is asked of other items.
  return entries && !nodesOf(expr.by).some(n => n.kind === 'filter') ? { entries, by: expr.by } : null
}

/** A condition about entries (`e.power > 5` for each `e`) as one about the k-th; a name that nothing has stands for what can't be said so. */
export const ofVariable = (expr: Expr, variable: string, group: PlannedGroup, entry: number): Expr =>
  replaceParts(expr, n => {
    if (n.kind === 'path' && n.of.kind === 'name' && n.of.name === variable)
      return membersOf(group).includes(n.member)
        ? { kind: 'name', name: codeAt(n.member, entry), ...HERE }
        : unknown(n.member)
    return n.kind === 'name' && n.name === variable ? unknown(variable) : null
  })

/** A condition about values (`x > 5` for each `x` of the entries' answers) as one about the answer of one entry. */
export const ofValue = (expr: Expr, variable: string, code: string): Expr =>
  replaceParts(expr, n =>
    n.kind === 'name' && n.name === variable ? { kind: 'name', name: code, ...HERE } : null,
  )

/** What stands in the brackets of a filter, of the k-th entry. */
export const ofItem = (expr: Expr, group: PlannedGroup, entry: number): Expr => {
  const codes = new Set(membersOf(group))
  return replaceParts(ofVariable(expr, 'item', group, entry), n =>
    n.kind === 'name' && codes.has(n.name) ? { ...n, name: codeAt(n.name, entry) } : null,
  )
}

/** `guests[2].age`, `guests.age[2]`, `care.hull`: the answer of one entry or of a grid's row, as a name; anything else as it is. */
export function nameOfEntry(expr: Expr, copies: Copies): Expr {
  return rowNamed(expr, copies) ?? entryNamed(expr, copies) ?? expr
}

function rowNamed(expr: Expr, copies: Copies): Expr | null {
  if (expr.kind !== 'path') return null
  const of = nameOfEntry(expr.of, copies)
  const row = of.kind === 'name' ? rowCode(of.name, expr.member) : null
  return row !== null && copies.stepOf(row) ? { kind: 'name', name: row, ...HERE } : null
}

function entryNamed(expr: Expr, copies: Copies): Expr | null {
  const picked = pickedEntry(expr)
  const entries = picked ? copies.of.get(picked.list) : undefined
  if (!picked || !entries?.members.includes(picked.member)) return null
  const { member, number } = picked
  const isToldApart = Number.isInteger(number) && number >= 1 && number <= entries.copies
  return isToldApart ? { kind: 'name', name: codeAt(member, number), ...HERE } : null
}

/** The member of one entry by its number, whichever way it is written; null for anything else. */
function pickedEntry(expr: Expr): { list: string; member: string; number: number } | null {
  const [filter, member] = filterAndMember(expr)
  if (filter?.by.kind !== 'number' || typeof filter.by.value !== 'number') return null
  const list = filter.of.kind === 'path' ? filter.of.of : filter.of
  return list.kind === 'name' ? { list: list.name, member, number: filter.by.value } : null
}

function filterAndMember(expr: Expr): [ExprOf<'filter'> | null, string] {
  if (expr.kind === 'path') return expr.of.kind === 'filter' ? [expr.of, expr.member] : [null, '']
  return expr.kind === 'filter' && expr.of.kind === 'path' ? [expr, expr.of.member] : [null, '']
}

/** Conditions with what they ask of entries and rows written as if asked of one question: what classes of answers have to tell apart. */
export function withEntriesByName(exprs: readonly Expr[], plan: Plan): Expr[] {
  const grids = new Set(plan.questions.filter(q => isParted(q.place.node)).map(q => q.place.code))
  if (plan.groups.size === 0 && grids.size === 0) return [...exprs]
  return exprs.flatMap(expr => {
    const nodes = nodesOf(expr)
    const asksRows = nodes.some(n => gridIn(n, grids) !== null)
    const asksEntries = nodes.some(n => n.kind === 'name' && plan.groups.has(n.name))
    return [
      expr,
      ...(asksRows ? [rowsByName(expr, grids)] : []),
      ...(asksEntries ? [membersByName(expr, nodes, plan)] : []),
    ]
  })
}

/** The grid that an expression is, of an entry or not. */
function gridIn(expr: Expr, grids: ReadonlySet<string>): string | null {
  if (expr.kind === 'name') return grids.has(expr.name) ? expr.name : null
  if (expr.kind === 'path') return grids.has(expr.member) ? expr.member : null
  return expr.kind === 'filter' ? gridIn(expr.of, grids) : null
}

const rowsByName = (expr: Expr, grids: ReadonlySet<string>): Expr =>
  replaceParts(expr, n => {
    const of = n.kind === 'path' ? gridIn(n.of, grids) : null
    return n.kind === 'path' && of !== null ? { kind: 'name', name: rowCode(of, n.member), ...HERE } : null
  })

function membersByName(expr: Expr, nodes: readonly Expr[], plan: Plan): Expr {
  const member = (code: string | undefined): Expr | null =>
    code !== undefined && plan.byCode.has(code) ? { kind: 'name', name: code, ...HERE } : null
  const values = new Map(
    nodes.flatMap(n =>
      n.kind === 'quantified' && n.over.kind === 'path' ? [[n.variable, n.over.member] as const] : [],
    ),
  )
  return replaceParts(expr, n => {
    if (n.kind === 'path') return member(n.member)
    if (n.kind === 'filter') return n.of.kind === 'path' ? member(n.of.member) : null
    return n.kind === 'name' ? member(values.get(n.name)) : null
  })
}
