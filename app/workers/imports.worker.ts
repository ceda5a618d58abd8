import Papa from 'papaparse'
import readXlsx from 'read-excel-file/web-worker'
import { ENTRY_HEADS } from '../../core/formats/sheetNames'
import { restoreFormula } from '../../core/formats/formulas'
import type { Cell } from '../../core/formats/answerTable'
import type { Answers } from '../../core/form/answers'
import { decodeText } from './decodeText'

/** A row of a file of responses: the number of its response, null for a new one, and what it says, with its entries sheet by sheet. */
export interface FileRow {
  line: number
  number: number | null
  given: { cells: Cell[]; entries?: EntryLine[][] } | { answers: Answers }
}
interface EntryLine {
  entry: number | null
  cells: Cell[]
}
/** What a file holds; `loose`: how many entries belong to none of its rows. */
export type ImportFile =
  | {
      is: 'read'
      heads: string[]
      sheets: { name: string; heads: string[] }[]
      rows: FileRow[]
      loose: number
    }
  | { is: 'failed'; sentence: string }

/** So many rows of a file are read. */
const MOST_ROWS = 100_000
/** What stands in a table of responses besides answers; see `HEADS` of the export. */
const NUMBER = 'No.'
const FACTS: ReadonlySet<string> = new Set([NUMBER, 'Sent', 'Begun', 'Corrected', 'Version', 'State'])

addEventListener('message', ({ data }: MessageEvent<File>) => {
  read(data).then(
    found => postMessage(found),
    (error: unknown) => {
      console.error(error)
      const why = error instanceof Error ? error.message : String(error)
      postMessage({ is: 'failed', sentence: `The file can’t be read: ${why}` } satisfies ImportFile)
    },
  )
})

async function read(file: File): Promise<ImportFile> {
  if (/\.jsonl$/i.test(file.name)) return fromLines(decodeText(await file.arrayBuffer()))
  if (/\.xlsx$/i.test(file.name)) {
    const [first, ...others] = (await readXlsx(file)).map(({ sheet, data }) => ({
      name: sheet,
      lines: data.map(line => line.map(cellOf)),
    }))
    return fromTable(first?.lines ?? [], others.flatMap(entriesOf))
  }
  const { data } = Papa.parse<string[]>(decodeText(await file.arrayBuffer()), {
    delimitersToGuess: [',', ';', '\t', '|'],
    skipEmptyLines: 'greedy',
  })
  return fromTable(data.map(line => line.map(restoreFormula)))
}

function cellOf(cell: unknown): Cell {
  if (cell instanceof Date) return cell.toISOString().slice(0, 10)
  if (typeof cell === 'string' || typeof cell === 'number' || typeof cell === 'boolean') return cell
  return null
}

/** A sheet of entries, each with what stands for its response. */
interface EntrySheet {
  name: string
  heads: string[]
  rows: { response: string; line: EntryLine }[]
}

/** A sheet that begins as the sheets of entries do which are taken out; any other is none. */
function entriesOf({ name, lines: [first = [], ...lines] }: { name: string; lines: Cell[][] }): EntrySheet[] {
  if (!ENTRY_HEADS.every((head, i) => first[i] === head)) return []
  const heads = first.slice(ENTRY_HEADS.length).map(headOf)
  const rows = lines.flatMap(([response = null, entry = null, ...cells]) => {
    const isEmpty = [response, ...cells].every(cell => textOf(cell) === '')
    return isEmpty ? [] : [{ response: textOf(response), line: { entry: numberIn(entry), cells } }]
  })
  return [{ name, heads, rows }]
}
const textOf = (cell: Cell): string => (cell === null ? '' : String(cell).trim())
/** A head as it was taken out: a label may end with a blank. */
const headOf = (cell: Cell): string => (cell === null ? '' : String(cell))

function fromTable(
  [first = [], ...lines]: readonly (readonly Cell[])[],
  sheets: readonly EntrySheet[] = [],
): ImportFile {
  const heads = first.map(headOf)
  const columns = heads.flatMap((head, i) => (FACTS.has(head) ? [] : [i]))
  if (columns.length === 0) return failed('It has no columns with answers.')
  if (lines.length > MOST_ROWS) return failed(`It has more than ${MOST_ROWS} rows.`)
  const at = heads.indexOf(NUMBER)
  const inside = sheets.map(({ rows }) => byResponse(rows))
  const rows = lines.flatMap((line, i): FileRow[] => {
    const cells = columns.map(column => line[column] ?? null)
    if (cells.every(cell => cell === null || cell === '')) return []
    const response = textOf(line[at] ?? null)
    const entries = inside.map(own => (response === '' ? [] : (own.get(response) ?? [])))
    const given = sheets.length > 0 ? { cells, entries } : { cells }
    return [{ line: i + 2, number: numberIn(line[at] ?? null), given }]
  })
  return {
    is: 'read',
    heads: columns.map(column => heads[column] ?? ''),
    sheets: sheets.map(({ name, heads: own }) => ({ name, heads: own })),
    rows,
    loose: countLoose(inside, new Set(lines.map(line => textOf(line[at] ?? null)))),
  }
}

/** How many entries belong to none of some responses. */
function countLoose(inside: readonly Map<string, EntryLine[]>[], responses: ReadonlySet<string>): number {
  const loose = inside.flatMap(own =>
    [...own].filter(([response]) => response === '' || !responses.has(response)),
  )
  return loose.reduce((sum, [, lines]) => sum + lines.length, 0)
}

function byResponse(rows: EntrySheet['rows']): Map<string, EntryLine[]> {
  const found = new Map<string, EntryLine[]>()
  for (const { response, line } of rows) {
    const own = found.get(response)
    if (own) own.push(line)
    else found.set(response, [line])
  }
  return found
}

function numberIn(cell: Cell): number | null {
  const number = Number(cell)
  return cell !== null && cell !== '' && Number.isInteger(number) && number > 0 ? number : null
}

function fromLines(text: string): ImportFile {
  const lines = text.split('\n').map(line => line.trim())
  if (lines.length > MOST_ROWS) return failed(`It has more than ${MOST_ROWS} rows.`)
  const rows: FileRow[] = []
  for (const [i, line] of lines.entries()) {
    if (line === '') continue
    const row = lineOf(line)
    if (row === null) return failed(`Line ${i + 1} is no response as it is taken out.`)
    rows.push({ line: i + 1, ...row })
  }
  return { is: 'read', heads: [], sheets: [], rows, loose: 0 }
}

function lineOf(line: string): Omit<FileRow, 'line'> | null {
  const read: unknown = JSON.parse(line)
  if (typeof read !== 'object' || read === null || !('answers' in read)) return null
  const { answers } = read
  if (!isAnswers(answers)) return null
  const number = 'number' in read && typeof read.number === 'number' ? read.number : null
  return { number, given: { answers } }
}

/** What of it is no answer is refused by the server. */
const isAnswers = (value: unknown): value is Answers =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

const failed = (why: string): ImportFile => ({
  is: 'failed',
  sentence: `The file can’t be read: ${why}`,
})
