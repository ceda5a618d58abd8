import type { ChoiceList, Row } from '../form/choiceLists'
import { columnsOf } from '../form/types'

/** What is looked at of a list; the rows themselves keep their order. */
export interface RowView {
  /** Words that all stand somewhere in the row. */
  search: string
  only: RowKind
  sorted: RowOrder | null
}
export const ROW_KINDS = ['all', 'live', 'retired', 'marked', 'problems'] as const
export type RowKind = (typeof ROW_KINDS)[number]
export interface RowOrder {
  column: string
  down: boolean
}

const IS_OF_KIND: Record<RowKind, (row: Row, isWrong: boolean) => boolean> = {
  all: () => true,
  live: row => row.retired !== true,
  retired: row => row.retired === true,
  marked: row => row.mark !== undefined,
  problems: (_row, isWrong) => isWrong,
}

/**
 * The positions of the rows that are looked at, in the order in which they are.
 * @param wrong positions of rows with which something is wrong
 * @param language by whose rules texts are sorted (BCP 47)
 */
export function viewRows(
  list: ChoiceList,
  { search, only, sorted }: RowView,
  wrong: { has(position: number): boolean },
  language: string,
): number[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  const columns = ['code', 'label', 'remark', ...columnsOf(list).map(c => c.code)]
  const isOfKind = IS_OF_KIND[only]
  const found: number[] = []
  list.rows.forEach((row, at) => {
    if (isOfKind(row, wrong.has(at)) && hasWords(row, columns, words)) found.push(at)
  })
  return sorted ? sortPositions(found, list.rows, sorted, language) : found
}

function hasWords(row: Row, columns: readonly string[], words: readonly string[]): boolean {
  if (words.length === 0) return true
  const cells = columns.map(c => row[c] ?? '')
  const text = cells.join(' ').toLowerCase()
  return words.every(w => text.includes(w))
}

function sortPositions(
  positions: readonly number[],
  rows: readonly Row[],
  { column, down }: RowOrder,
  language: string,
): number[] {
  const collator = new Intl.Collator(language, { numeric: true })
  const compare = (a: unknown, b: unknown): number => {
    if (typeof a === 'number' && typeof b === 'number') return a - b
    return collator.compare(String(a ?? ''), String(b ?? ''))
  }
  const sign = down ? -1 : 1
  return [...positions].sort((a, b) => sign * compare(rows[a]?.[column], rows[b]?.[column]))
}
