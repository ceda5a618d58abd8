import type { Row } from '../form/choiceLists'

/** What new rows would change in a list, by code. */
export interface Difference {
  added: Row[]
  changed: { before: Row; after: Row; cells: string[] }[]
  /** In the list, not among the new rows. */
  missing: Row[]
  same: number
  /** New rows that have another row's label under the same code: perhaps the code means something else now. */
  clashing: { before: Row; after: Row }[]
  /** The rows stand in another order. */
  reordered: boolean
}

/** Compares a list's rows with new ones. Marks and remarks that the new rows don't bring are kept, and so count as the same. */
export function compareRows(before: readonly Row[], after: readonly Row[]): Difference {
  const old = new Map(before.map(r => [r.code, r]))
  const codes = new Set(after.map(r => r.code))
  const labels = new Map(before.map(r => [r.label, r.code]))
  const difference: Difference = {
    added: [],
    changed: [],
    missing: before.filter(r => !codes.has(r.code) && r.retired !== true),
    same: 0,
    clashing: [],
    reordered: false,
  }
  let last = -1
  const order = new Map(before.map((r, i) => [r.code, i]))
  for (const row of after) {
    const was = old.get(row.code)
    if (!was) {
      difference.added.push(row)
      continue
    }
    const at = order.get(row.code) ?? 0
    difference.reordered ||= at < last
    last = at
    const cells = changedCells(was, row)
    if (cells.length === 0) difference.same += 1
    else if (
      cells.includes('label') &&
      cells.length > 1 &&
      labels.has(row.label) &&
      labels.get(row.label) !== row.code
    )
      difference.clashing.push({ before: was, after: row })
    else difference.changed.push({ before: was, after: row, cells })
  }
  return difference
}

const KEPT: ReadonlySet<string> = new Set(['mark', 'remark', 'retired'])
function changedCells(before: Row, after: Row): string[] {
  const keys = new Set([...Object.keys(before), ...Object.keys(after)])
  return [...keys].filter(
    key => (before[key] ?? null) !== (after[key] ?? null) && !(KEPT.has(key) && after[key] === undefined),
  )
}

/** What becomes of rows that the new table does not have. */
export type Missing = 'keep' | 'retire' | 'remove'

/** The list's rows after taking the new ones in: in their order; what is missing stays at the end, kept, retired, or gone. */
export function mergeRows(before: readonly Row[], after: readonly Row[], missing: Missing): Row[] {
  const old = new Map(before.map(r => [r.code, r]))
  const codes = new Set(after.map(r => r.code))
  const taken = after.map((row): Row => {
    const was = old.get(row.code)
    return was
      ? { ...(was.mark ? { mark: was.mark } : {}), ...(was.remark ? { remark: was.remark } : {}), ...row }
      : row
  })
  const rest = before.filter(r => !codes.has(r.code))
  return missing === 'remove'
    ? taken
    : [...taken, ...(missing === 'keep' ? rest : rest.map((r): Row => ({ ...r, retired: true })))]
}
