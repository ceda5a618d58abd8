import type { Row } from '#core/form/choiceLists'
import { codeFromLabel, freeCode } from '#core/form/codes'
import { cellText, withCell, type ShownColumn } from '#core/lists/cells'
import { recodeRowEdits } from '#core/lists/renameChoice'
import { insertEdit } from '#core/lists/changes'
import type { Grid } from './useGridEdits'
import type { GridCell } from './useGridSelection'

/** What comes of text that was typed into one cell of a list's grid. */
export function useCellEdit({ list, view, columns, say, sayDone }: Omit<Grid, 'box'>) {
  const draft = useDraft()
  const address = () => `list/${list().code}` as const
  /** What was typed into a cell becomes its content, or begins a row. */
  function setCell({ line, column }: GridCell, typed: string) {
    const row = list().rows[view()[line] ?? -1]
    const into = columns()[column]
    if (!into) return
    if (row) changeCell(line, row, into, typed)
    else if (typed.trim() !== '') addRow({ [into.code]: typed.trim() })
  }
  function changeCell(line: number, row: Row, column: ShownColumn, typed: string) {
    if (cellText(row, column.code) === typed) return
    const next = withCell(row, column, typed)
    if (!next) return say(`“${typed}” does not fit the column ${column.label}.`)
    if (!draft.form) return
    const edits = recodeRowEdits(draft.form, list().code, view()[line] ?? -1, next)
    if (draft.edit(edits) && edits.length > 1)
      sayDone(
        `“${row.code}” is “${next.code}” now, in ${counted(edits.length - 1, 'other place', 'other places')} too.`,
      )
  }
  const freeRowCode = (label: string) => freeCode(label, new Set(list().rows.map(r => r.code)))
  function addRow(cells: Record<string, string>) {
    const label = cells.label ?? cells.code ?? ''
    const code = cells.code ?? freeRowCode(codeFromLabel(label, 'row'))
    draft.edit([insertEdit(address(), list().rows.length, [{ ...cells, code, label }])])
  }
  return { setCell }
}
