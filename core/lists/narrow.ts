import { compile } from '../expressions/compile'
import { ROW_SLOT, type Compiled, type Environment } from '../expressions/compiled'
import { nodesOf, type Expr } from '../expressions/tree'
import type { Value } from '../expressions/types'
import { valueKey, type ListIndex } from './listIndex'

/** Which codes a narrowing leaves, in the order of the rows. */
export type Narrowing = (values: readonly Value[]) => ReadonlySet<string>

/** A part of a narrowing that an index answers: a column equals a value, or is among several. */
interface Lookup {
  column: string
  value: Compiled
  many: boolean
}

/** How many narrowings are remembered with what they left. */
const REMEMBERED = 64

/**
 * Makes a narrowing ready: parts such as `row.coast = coast` are looked up in an index of the column, only what is left is tried row by
 * row; the same parents give the same set again, at once.
 */
export function compileNarrowing(expr: Expr, index: ListIndex, environment: Environment): Narrowing {
  const parts = expr.kind === 'and' ? expr.parts : [expr]
  const lookups: Lookup[] = []
  const rest: Expr[] = []
  for (const part of parts) {
    const lookup = lookupIn(part, environment)
    if (lookup) lookups.push(lookup)
    else rest.push(part)
  }
  const [only] = rest
  const tried =
    only === undefined
      ? null
      : compile(rest.length === 1 ? only : { ...expr, kind: 'and', parts: rest }, environment)
  const fixed = lookups.length > 0 && tried === null
  const remembered = new Map<string, ReadonlySet<string>>()
  return values => {
    const wanted = lookups.map(l => l.value(values))
    const key = fixed ? wanted.map(valueKey).join('\u0001') : null
    const known = key === null ? undefined : remembered.get(key)
    if (known) return known
    const positions =
      lookups.length === 0
        ? null
        : intersected(lookups.map((l, i) => positionsOf(l, wanted[i] ?? null, index)))
    const left = collect(index, positions, tried, values)
    if (key !== null) {
      if (remembered.size >= REMEMBERED) remembered.clear()
      remembered.set(key, left)
    }
    return left
  }
}

function positionsOf({ column, many }: Lookup, value: Value, index: ListIndex): readonly number[] {
  const held = index.column(column)
  if (!many) return held.get(valueKey(value)) ?? []
  if (!Array.isArray(value)) return []
  return [...new Set(value.flatMap((v: Value) => held.get(valueKey(v)) ?? []))].sort((a, b) => a - b)
}

function intersected(lists: readonly (readonly number[])[]): readonly number[] {
  const [smallest = [], ...others] = [...lists].sort((a, b) => a.length - b.length)
  if (others.length === 0) return smallest
  const sets = others.map(l => new Set(l))
  return smallest.filter(position => sets.every(s => s.has(position)))
}

function collect(
  index: ListIndex,
  positions: readonly number[] | null,
  tried: Compiled | null,
  values: readonly Value[],
): ReadonlySet<string> {
  const left = new Set<string>()
  const slots = [...values]
  const add = (position: number) => {
    const row = index.rows[position]
    if (!row) return
    if (tried) {
      slots[ROW_SLOT] = index.context(position)
      if (tried(slots) !== true) return
    }
    left.add(row.code)
  }
  if (positions) positions.forEach(add)
  else for (let i = 0; i < index.rows.length; i++) add(i)
  return left
}

/** `row.column`, and nothing else of the row. */
const columnIn = (expr: Expr): string | null =>
  expr.kind === 'path' && expr.of.kind === 'name' && expr.of.name === 'row' ? expr.member : null
const usesRow = (expr: Expr) => nodesOf(expr).some(n => n.kind === 'name' && n.name === 'row')

function lookupIn(part: Expr, environment: Environment): Lookup | null {
  if (part.kind === 'compare' && part.op === '=') {
    for (const [own, other] of [
      [part.left, part.right],
      [part.right, part.left],
    ] as const) {
      const column = columnIn(own)
      if (column !== null && !usesRow(other))
        return { column, value: compile(other, environment), many: false }
    }
  }
  if (part.kind === 'call' && part.name === 'list contains') {
    const [list, element] = part.args
    const column = element ? columnIn(element) : null
    if (list && column !== null && !usesRow(list))
      return { column, value: compile(list, environment), many: true }
  }
  return null
}
