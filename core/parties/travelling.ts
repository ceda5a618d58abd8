import type { ChoiceList, Row } from '../form/choiceLists'
import { columnsOf } from '../form/types'
import { publicRow } from '../lists/searchRows'

/** A list of at most so many rows travels with the page. */
export const TRAVELS = 500

/** The columns that anything sent may ask for: `row.depth` in a rule or quote. */
export function columnsNamedIn(sent: unknown): ReadonlySet<string> {
  const names = new Set<string>()
  const visit = (value: unknown) => {
    if (typeof value === 'string')
      for (const [, name = ''] of value.matchAll(/\brow\s*\.\s*([a-z][a-z0-9_]*)/g)) names.add(name)
    else if (typeof value === 'object' && value !== null) Object.values(value).forEach(visit)
  }
  visit(sent)
  return names
}

/** A list as it is sent: without the designers' marks, where its rows come from, and the columns that only rules over hidden answers ask for; of a long one only the rows that answers and rules name, the others are searched on the server. */
export function travelling(
  list: ChoiceList,
  asked: ReadonlySet<string>,
  mentioned: () => ReadonlySet<string>,
): ChoiceList {
  const { title: _t, shared: _s, people: _p, rows, columns: _c, ...rest } = list
  const kept = columnsOf(list)
    .map(({ code, label, type }) => ({ code, label, type }))
    .filter(c => asked.has(c.code))
  const columns = kept.length > 0 ? { columns: kept } : {}
  const sent = (row: Row) => withColumns(publicRow(row), asked)
  const live = rows.filter(r => r.retired !== true || mentioned().has(r.code))
  if (live.length <= TRAVELS)
    return {
      ...rest,
      ...columns,
      rows: live.map(r => ({ ...sent(r), ...(r.retired ? { retired: true } : {}) })),
    }
  return {
    ...rest,
    partial: live.length,
    ...columns,
    rows: live.filter(r => mentioned().has(r.code)).map(sent),
  }
}

/** A row with its code, its label and just these of its columns. */
function withColumns(row: Row, asked: ReadonlySet<string>): Row {
  const { code, label } = row
  const cells = Object.entries(row).filter(([key]) => asked.has(key))
  return { ...Object.fromEntries(cells), code, label }
}
