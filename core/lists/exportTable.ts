import type { ChoiceList } from '../form/choiceLists'
import { columnsOf } from '../form/types'

/** What a spreadsheet would take for the beginning of a formula, full-width signs too. */
const FORMULA_START = /^[=+\-@\t＝＋－＠]/

/** A list as a table with a line of heads, to be written as a file. Cells that a spreadsheet would read as a formula are made safe; reading the file in again takes that off. */
export function exportTable(list: ChoiceList): (string | number)[][] {
  const codes = ['code', 'label', ...columnsOf(list).map(c => c.code), 'retired', 'remark']
  return [codes, ...list.rows.map(row => codes.map(c => exportCell(row[c])))]
}

function exportCell(cell: unknown): string | number {
  if (cell === null || cell === undefined) return ''
  if (cell === true) return 'yes'
  if (cell === false) return 'no'
  if (typeof cell === 'number') return cell
  const text = String(cell)
  return FORMULA_START.test(text) ? `'${text}` : text
}
