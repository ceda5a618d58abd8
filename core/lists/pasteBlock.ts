import type { ChoiceList, Row } from '../form/choiceLists'
import { codeFromLabel, freeCode } from '../form/codes'
import type { Edit } from '../form/edits'
import { withCell, type ShownColumn } from './cells'
import { changeEdits, insertEdit } from './changes'

/** What a pasted block does to a list. */
export interface Pasted {
  edits: Edit[]
  lines: number
  /** Cells that do not fit their column and were left as they are. */
  misfits: number
}

/**
 * Puts a block of text (cells between tabs, a line for each row) over the cells of a list; what reaches beyond the last row becomes rows.
 * @param positions the rows under the lines of the block, the first under the first
 * @param columns the columns under its cells
 */
export function pasteBlock(
  list: ChoiceList,
  text: string,
  positions: readonly number[],
  columns: readonly ShownColumn[],
): Pasted {
  const block = readBlock(text)
  const changes = new Map<number, Row>()
  const beyond: Row[] = []
  let misfits = 0
  block.forEach((cells, i) => {
    const position = positions[i]
    const before = position === undefined ? undefined : list.rows[position]
    const put = putCells(before ?? { code: '', label: '' }, cells, columns)
    misfits += put.misfits
    if (position === undefined) beyond.push(put.row)
    else changes.set(position, put.row)
  })
  const address = `list/${list.code}` as const
  const fresh = withCodes(beyond, list.rows)
  const added = fresh.length > 0 ? [insertEdit(address, list.rows.length, fresh)] : []
  const edits = [...added, ...changeEdits(address, list.rows, changes)]
  return { edits, lines: block.length, misfits }
}

const readBlock = (text: string): string[][] =>
  text
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .map(line => line.split('\t'))

function putCells(row: Row, cells: readonly string[], columns: readonly ShownColumn[]) {
  let next = row
  let misfits = 0
  cells.forEach((text, j) => {
    const column = columns[j]
    if (!column) return
    const changed = withCell(next, column, text)
    if (!changed && text.trim()) misfits += 1
    next = changed ?? next
  })
  return { row: next, misfits }
}

/** New rows, each with a code of its own and a label; empty ones are left out. */
function withCodes(rows: readonly Row[], present: readonly Row[]): Row[] {
  const taken = new Set(present.map(r => r.code))
  return rows
    .filter(r => r.code !== '' || r.label !== '')
    .map(row => {
      const code = row.code || freeCode(codeFromLabel(row.label, 'row'), taken)
      taken.add(code)
      return { ...row, code, label: row.label || code }
    })
}
