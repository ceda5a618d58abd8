import { ROW_KEYS, type ChoiceList, type ColumnKind, type Row } from '../form/choiceLists'
import { codeFromLabel, freeCode } from '../form/codes'
import type { Edit } from '../form/edits'
import { columnsOf } from '../form/types'
import type { Address } from '../form/walk'
import { withoutCell } from './cells'
import { replaceEdit } from './changes'
import { splitLevels, type groupedOptions } from './levels'

/** The column that names the group of a row. */
const GROUP = 'group'

const addressOf = (list: ChoiceList): Address => `list/${list.code}`

type Columns = NonNullable<ChoiceList['columns']>

/** The edit that gives a list other columns, or none. */
export const columnsEdit = (list: ChoiceList, columns: Columns): Edit => ({
  do: 'change',
  what: addressOf(list),
  set: { columns: columns.length > 0 ? columns : null },
})

/** The edit that adds a column with a label; its code is made from that. */
export function addColumnEdit(list: ChoiceList, label: string): Edit {
  const taken = new Set([...ROW_KEYS, ...columnsOf(list).map(c => c.code)])
  const code = freeCode(codeFromLabel(label, 'column'), taken)
  const added = code === label ? code : { code, label }
  return columnsEdit(list, [...(list.columns ?? []), added])
}

/** The edit that calls a column otherwise, or has it hold something else. */
export function changeColumnEdit(
  list: ChoiceList,
  index: number,
  part: { label?: string; type?: ColumnKind },
): Edit {
  const columns = (list.columns ?? []).map((column, i) => {
    if (i !== index) return column
    const whole = typeof column === 'string' ? { code: column } : column
    return { ...whole, ...part }
  })
  return columnsEdit(list, columns)
}

/** The edits that take a column away, with every cell in it. */
export function removeColumnEdits(list: ChoiceList, index: number): Edit[] {
  const gone = columnsOf(list)[index]
  if (!gone) return []
  const rows = list.rows.map(row => withoutCell(row, gone.code))
  const columns = (list.columns ?? []).toSpliced(index, 1)
  return [columnsEdit(list, columns), replaceEdit(addressOf(list), list.rows, rows)]
}

/**
 * The edits by which one table with a column for each level becomes linked lists; see `splitLevels`.
 * @param lists all lists of the form, this one among them
 * @param levels codes of its columns, outermost first
 */
export function splitEdits(
  list: ChoiceList,
  lists: readonly ChoiceList[],
  levels: readonly string[],
): Edit[] {
  const made = splitLevels(list, levels, new Set(lists.map(l => l.code)))
  const last = made.at(-1)
  if (levels.length === 0 || !last) return []
  const at = lists.indexOf(list)
  return [
    replaceEdit(addressOf(list), list.rows, last.rows),
    columnsEdit(list, last.columns ?? []),
    ...made.slice(0, -1).map((node, i): Edit => ({ do: 'insert', into: 'lists', at: at + i, node })),
  ]
}

/** The edits by which choices given group by group become rows with a column for the group, and a list of the groups before them. */
export function addGroupsEdits(
  list: ChoiceList,
  lists: readonly ChoiceList[],
  groups: ReturnType<typeof groupedOptions>,
): Edit[] {
  if (groups.length === 0) return []
  const parents = freeCode(`${list.code}_groups`, new Set(lists.map(l => l.code)))
  const heads = groups.map(g => ({ code: codeFromLabel(g.head, GROUP), label: g.head }))
  const taken = new Set(list.rows.map(r => r.code))
  const rows = groups.flatMap((g, i) =>
    g.labels.map((label): Row => {
      const code = freeCode(codeFromLabel(label, 'row'), taken)
      taken.add(code)
      return { code, label, [GROUP]: heads[i]?.code ?? '' }
    }),
  )
  const hasGroup = columnsOf(list).some(c => c.code === GROUP)
  const columns = [...(list.columns ?? []), ...(hasGroup ? [] : [GROUP])]
  return [
    columnsEdit(list, columns),
    { do: 'splice', what: addressOf(list), at: list.rows.length, remove: 0, rows },
    { do: 'insert', into: 'lists', at: lists.indexOf(list), node: { code: parents, rows: heads } },
  ]
}
