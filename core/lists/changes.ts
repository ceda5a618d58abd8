import type { Edit } from '../form/edits'
import type { Row } from '../form/choiceLists'
import type { Address } from '../form/walk'

/** What happens to rows, by position: another row in its place, or gone. */
export type RowChanges = ReadonlyMap<number, Row | null>

/** The edits that make such changes; rows that stand together change in one. The later ones come first, so that positions stay true. */
export function changeEdits(list: Address, rows: readonly Row[], changes: RowChanges): Edit[] {
  const positions = [...changes.keys()].filter(p => p >= 0 && p < rows.length).sort((a, b) => a - b)
  const runs: { at: number; count: number }[] = []
  for (const at of positions) {
    const last = runs.at(-1)
    if (last && last.at + last.count === at) last.count += 1
    else runs.push({ at, count: 1 })
  }
  return runs.reverse().map(({ at, count }): Edit => {
    const span = Array.from({ length: count }, (_, i) => at + i)
    return {
      do: 'splice',
      what: list,
      at,
      remove: count,
      codes: span.map(i => rows[i]?.code ?? ''),
      rows: span.flatMap(i => changes.get(i) ?? []),
    }
  })
}

/** The edit that puts rows in at a position. */
export const insertEdit = (list: Address, at: number, rows: readonly Row[]): Edit => ({
  do: 'splice',
  what: list,
  at,
  remove: 0,
  rows: [...rows],
})
/** The edit that puts other rows in place of all. */
export const replaceEdit = (list: Address, before: readonly Row[], rows: readonly Row[]): Edit => ({
  do: 'splice',
  what: list,
  at: 0,
  remove: before.length,
  rows: [...rows],
})

/** Moves some rows up or down by one, as a block each. */
export function moveRowsEdits(
  list: Address,
  rows: readonly Row[],
  positions: readonly number[],
  by: 1 | -1,
): Edit[] {
  const sorted = [...positions].sort((a, b) => a - b)
  const [first = -1] = sorted
  const last = sorted.at(-1) ?? -1
  const [from, to] = by < 0 ? [first - 1, last] : [first, last + 1]
  if (from < 0 || to >= rows.length || sorted.length === 0) return []
  const span = rows.slice(from, to + 1)
  const moved = by < 0 ? [...span.slice(1), ...span.slice(0, 1)] : [...span.slice(-1), ...span.slice(0, -1)]
  return [
    { do: 'splice', what: list, at: from, remove: span.length, codes: span.map(r => r.code), rows: moved },
  ]
}
