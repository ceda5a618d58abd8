import type { ChoiceList, Row, RowMark } from '#core/form/choiceLists'
import { freeCode } from '#core/form/codes'
import type { Form } from '#core/form/definition'
import type { Edit } from '#core/form/edits'
import { cellText, withCell, type ShownColumn } from '#core/lists/cells'
import { changeEdits, insertEdit, moveRowsEdits } from '#core/lists/changes'
import { pasteBlock } from '#core/lists/pasteBlock'
import type { GridBox } from './useGridSelection'

export interface Grid {
  list: () => ChoiceList
  /** The positions of the rows in view, by line. */
  view: () => readonly number[]
  columns: () => readonly ShownColumn[]
  box: () => GridBox
  /** Tells the person what happened. */
  say: (text: string) => void
  /** Tells of the step that was made. */
  sayDone: (text: string) => void
}

function pastedWords({ lines, misfits }: { lines: number; misfits: number }): string {
  const cells = counted(misfits, 'cell does', 'cells do')
  return `${counted(lines, 'line')} pasted${misfits > 0 ? `; ${cells} not fit the column and were left` : ''}.`
}

/** Of so many rows that go it is looked who says their codes. */
const MOST_LOOKED_FOR = 50
const usesOfRows = (form: Form | null, list: string, rows: readonly Row[]): string =>
  form === null
    ? ''
    : sayChoiceUses(
        form,
        { list },
        rows.slice(0, MOST_LOOKED_FOR).map(r => r.code),
      )

/** What is done to the selected cells and rows of a list's grid. */
export function useGridEdits({ list, view, columns, box, sayDone }: Grid) {
  const draft = useDraft()
  const address = () => `list/${list().code}` as const
  const rowAt = (line: number): Row | undefined => list().rows[view()[line] ?? -1]
  const selectedPositions = () => view().slice(box().top, box().bottom + 1)
  const selectedColumns = () => columns().slice(box().left, box().right + 1)
  const put = (edits: Edit[]) => draft.edit(edits)

  function changeRows(how: (row: Row, line: number) => Row | null) {
    const changes = new Map<number, Row | null>()
    selectedPositions().forEach((position, i) => {
      const row = list().rows[position]
      if (row) changes.set(position, how(row, i))
    })
    put(changeEdits(address(), list().rows, changes))
  }
  function clear() {
    const wiped = selectedColumns().filter(c => c.code !== 'code' && c.code !== 'label')
    changeRows(row => wiped.reduce((r, c) => withCell(r, c, '') ?? r, row))
  }
  function fillDown() {
    const first = rowAt(box().top)
    if (!first) return
    const down = selectedColumns().filter(c => c.code !== 'code')
    const filled = (row: Row) => down.reduce((r, c) => withCell(r, c, cellText(first, c.code)) ?? r, row)
    changeRows((row, i) => (i === 0 ? row : filled(row)))
  }
  const retire = () => changeRows(({ retired, ...row }) => (retired ? row : { ...row, retired: true }))
  const mark = (given: RowMark | null) =>
    changeRows(({ mark: _before, ...row }) => (given ? { ...row, mark: given } : row))
  function remove() {
    const gone = selectedPositions().flatMap(position => list().rows[position] ?? [])
    const used = usesOfRows(draft.form, list().code, gone)
    changeRows(() => null)
    if (used) sayDone(`${counted(gone.length, 'row is', 'rows are')} gone. ${used}`)
  }
  function insertBelow(line: number) {
    const after = view()[line] ?? list().rows.length
    const row = { code: freeCode('row', new Set(list().rows.map(r => r.code))), label: '' }
    put([insertEdit(address(), Math.min(list().rows.length, after + 1), [row])])
  }
  const moveRows = (by: 1 | -1): boolean => {
    const edits = moveRowsEdits(address(), list().rows, selectedPositions(), by)
    return edits.length > 0 && put(edits)
  }
  const copied = (): string =>
    selectedPositions()
      .map(position => list().rows[position])
      .map(row => selectedColumns().map(c => cellText(row, c.code).replaceAll(/[\t\n]/g, ' ')))
      .map(cells => cells.join('\t'))
      .join('\n')
  /** A pasted block goes over the cells from the selection’s corner on. */
  function paste(text: string) {
    const pasted = pasteBlock(list(), text, view().slice(box().top), columns().slice(box().left))
    put(pasted.edits)
    sayDone(pastedWords(pasted))
  }
  return { rowAt, clear, fillDown, retire, mark, remove, insertBelow, moveRows, copied, paste }
}
