import { numberFromDouble, numberText, isNumber } from '../expressions/decimal'
import type { Context, Value } from '../expressions/types'
import type { OfferedRow } from '../form/rows'

/** The rows that a choice may offer, ready to be looked up; made once for each list of rows. */
export interface ListIndex {
  rows: readonly OfferedRow[]
  byCode: ReadonlyMap<string, OfferedRow>
  /** What `row` stands for in a narrowing. */
  context: (position: number) => Context
  /** By a key of a cell: the positions of the rows that hold it in a column. */
  column: (code: string) => ReadonlyMap<string, readonly number[]>
}

const MADE = new WeakMap<readonly OfferedRow[], ListIndex>()

/** The index of some rows. */
export function indexRows(rows: readonly OfferedRow[]): ListIndex {
  const known = MADE.get(rows)
  if (known) return known
  const made = new RowIndex(rows)
  MADE.set(rows, made)
  return made
}

/** A cell as the rule language sees it. */
export function cellValue(cell: unknown): Value {
  if (typeof cell === 'number') return numberFromDouble(cell)
  return typeof cell === 'string' || typeof cell === 'boolean' ? cell : null
}

/** A key that is the same for values that are equal in rules. */
export function valueKey(value: Value): string {
  if (value === null) return ''
  if (isNumber(value)) return `n${numberText(value)}`
  if (typeof value === 'string') return `t${value}`
  return typeof value === 'boolean' ? `b${value}` : `j${JSON.stringify(value)}`
}

class RowIndex implements ListIndex {
  private codes: Map<string, OfferedRow> | null = null
  private readonly contexts: Context[] = []
  private readonly columns = new Map<string, Map<string, number[]>>()
  constructor(readonly rows: readonly OfferedRow[]) {}

  get byCode() {
    return (this.codes ??= new Map(this.rows.map(r => [r.code, r])))
  }

  context = (position: number): Context =>
    (this.contexts[position] ??= Object.fromEntries(
      Object.entries(this.rows[position] ?? {}).map(([key, value]) => [key, cellValue(value)]),
    ))

  column = (code: string) => {
    const known = this.columns.get(code)
    if (known) return known
    const made = new Map<string, number[]>()
    this.rows.forEach((row, i) => {
      const key = valueKey(cellValue(row[code]))
      const held = made.get(key)
      if (held) held.push(i)
      else made.set(key, [i])
    })
    this.columns.set(code, made)
    return made
  }
}
