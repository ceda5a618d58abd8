import type { PassThrough } from 'node:stream'
import ExcelJS from 'exceljs'
import { listCodes } from '../../core/formats/entryTable'
import { ENTRY_HEADS, workbookNames } from '../../core/formats/sheetNames'
import { factsOf, HEADS, type ExportTable, type TakenOut } from './exportTable'

/** A spreadsheet has no more rows. */
const MOST_ROWS = 1_048_576
const DAY = /^\d{4}-\d\d-\d\d$/
/** The longest text of a cell. */
const LONGEST_CELL = 32_767

/** Writes responses as a workbook: a sheet of responses, one for each group that repeats, and one of codes with their labels. */
export async function writeWorkbook(
  out: PassThrough,
  taken: AsyncGenerator<TakenOut>,
  { plan, columns, entries }: ExportTable,
): Promise<void> {
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({
    stream: out,
    useStyles: true,
    useSharedStrings: false,
  })
  const names = workbookNames(entries)
  const sheet = book.addWorksheet(names[0], { views: [{ state: 'frozen', ySplit: 1 }] })
  const inner = entries.map((table, i) => ({ table, sheet: book.addWorksheet(names[i + 1]), count: 1 }))
  sheet.addRow([...HEADS, ...columns.map(c => c.head)]).commit()
  for (const { table, sheet: own } of inner) own.addRow([...ENTRY_HEADS, ...table.heads]).commit()
  let count = 1
  for await (const one of taken) {
    if (out.destroyed) return
    count += 1
    if (count > MOST_ROWS) break
    const cells = columns.map(({ isDay, read }) => asWritten(read(one.filled), isDay))
    sheet.addRow([...factsOf(one), ...cells]).commit()
    for (const entry of inner)
      for (const [i, row] of entry.table.rowsOf(one.filled).entries()) {
        entry.count += 1
        if (entry.count > MOST_ROWS) break
        entry.sheet.addRow([one.row.number, i + 1, ...row.map(cell => asWritten(cell, false))]).commit()
      }
  }
  sheet.commit()
  for (const entry of inner) entry.sheet.commit()
  const codes = book.addWorksheet(names.at(-1))
  codes.addRow(['Question', 'Label', 'Code', 'Choice']).commit()
  for (const row of listCodes(plan)) codes.addRow(row).commit()
  codes.commit()
  await book.commit()
}

/** Days as days; texts as long as a cell takes them. Cells of a workbook say what they hold: a text is never taken for a formula. */
function asWritten(
  cell: string | number | boolean | null,
  isDay: boolean,
): string | number | boolean | Date | null {
  if (typeof cell !== 'string') return cell
  // In an older version the same code may have held something else.
  return isDay && DAY.test(cell) ? new Date(`${cell}T00:00:00Z`) : cell.slice(0, LONGEST_CELL)
}
