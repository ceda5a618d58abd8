import type { ChoiceList, ColumnKind, Row } from '../form/choiceLists'
import { columnsOf } from '../form/types'
import { readCell } from './table'

/** A column as it is shown: those of the list, and the ones that every list has. */
export interface ShownColumn {
  code: string
  label: string
  type: ColumnKind
}

/** The columns of a list as they are shown, code and label first, the remark last. */
export const shownColumns = (list: ChoiceList): ShownColumn[] => [
  { code: 'code', label: 'Code', type: 'text' },
  { code: 'label', label: 'Label', type: 'text' },
  ...columnsOf(list),
  { code: 'remark', label: 'Remark (not shown)', type: 'text' },
]

/** What a cell reads like. */
export function cellText(row: Row | undefined, code: string): string {
  const cell = row?.[code]
  if (cell === null || cell === undefined) return ''
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no'
  return String(cell)
}

/** A row with one cell read anew; null where the text does not fit the column. */
export function withCell(row: Row, column: ShownColumn, typed: string): Row | null {
  const text = typed.trim()
  if (column.code === 'code') return text ? { ...row, code: text } : null
  if (column.code === 'label') return { ...row, label: text }
  if (text === '') return withoutCell(row, column.code)
  const cell = readCell(typed, column.type)
  if (cell === null) return null
  return { ...row, [column.code]: cell }
}

/** A row without what stands in a column. */
export function withoutCell(row: Row, code: string): Row {
  const next: Record<string, unknown> = { ...row }
  Reflect.deleteProperty(next, code)
  // The shape is that of a row: one cell was taken out.
  return next as Row
}
