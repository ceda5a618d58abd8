import Papa from 'papaparse'
import readXlsx from 'read-excel-file/web-worker'
import { compareRows, mergeRows, type Missing } from '../../core/lists/difference'
import { checkIntegrity, type RowProblem } from '../../core/lists/integrity'
import {
  headProblems,
  guessColumnKind,
  guessTableRoles,
  headsFor,
  isHeaded,
  readRows,
  type Role,
  type Table,
  type TableProblem,
} from '../../core/lists/table'
import type { ChoiceList, ColumnKind, Row } from '../../core/form/choiceLists'
import { decodeText } from './decodeText'

export interface Preview {
  heads: string[]
  lines: string[][]
  count: number
  roles: Role[]
  kinds: Record<string, ColumnKind>
  warnings: string[]
  /** Whether the first line heads the columns. */
  isHeaded: boolean
}
export interface Comparison {
  added: Row[]
  changed: { before: Row; after: Row; cells: string[] }[]
  missing: Row[]
  clashing: { before: Row; after: Row }[]
  counts: { added: number; changed: number; missing: number; clashing: number; same: number }
  problems: TableProblem[]
  rows: Row[]
  columns: string[]
}
export type ListsQuestion =
  | { ask: 'read'; file: File; known: Record<string, ColumnKind> }
  | { ask: 'head'; isHeaded: boolean; known: Record<string, ColumnKind> }
  | { ask: 'compare'; roles: Role[]; kinds: Record<string, ColumnKind>; before: Row[]; missing: Missing }
  | { ask: 'check'; asked: number; lists: ChoiceList[] }
export type ListsAnswer =
  | { is: 'progress'; share: number }
  | { is: 'read'; preview: Preview }
  | { is: 'compared'; comparison: Comparison }
  | { is: 'checked'; asked: number; problems: RowProblem[]; milliseconds: number }
  | { is: 'failed'; sentence: string }

/** How many lines and rows are shown before anything is taken in. */
const SHOWN = 20
const MOST_LINES = 200_000
/** All lines of the file, and those that are rows. */
let whole: Table = []
let table: Table = []

const reply = (answer: ListsAnswer) => postMessage(answer)

addEventListener('message', ({ data }: MessageEvent<ListsQuestion>) => {
  answer(data).catch((error: unknown) => {
    console.error(error)
    reply({
      is: 'failed',
      sentence: `The file can’t be read: ${error instanceof Error ? error.message : String(error)}`,
    })
  })
})

async function answer(question: ListsQuestion) {
  if (question.ask === 'check') {
    const begun = performance.now()
    const problems = checkIntegrity(question.lists)
    return reply({ is: 'checked', asked: question.asked, problems, milliseconds: performance.now() - begun })
  }
  if (question.ask === 'compare') return compare(question)
  if (question.ask === 'read') {
    const { file } = question
    whole = /\.xlsx$/i.test(file.name) ? await fromWorkbook(file) : fromText(await file.arrayBuffer())
  }
  const { known } = question
  show(question.ask === 'head' ? question.isHeaded : isHeaded(whole.slice(0, 200), Object.keys(known)), known)
}

/** Shows what the table is taken for: its heads, or all lines as rows. */
function show(isHeaded: boolean, known: Record<string, ColumnKind>) {
  const heads = isHeaded ? [...(whole[0] ?? [])] : headsFor(whole.slice(0, 200))
  table = isHeaded ? whole.slice(1) : whole
  const roles = guessTableRoles(heads, table.slice(0, 1_000), Object.keys(known))
  const kinds = Object.fromEntries(
    roles.flatMap((role, i) =>
      typeof role === 'object'
        ? [[role.column, known[role.column] ?? guessColumnKind(column(table, i))] as const]
        : [],
    ),
  )
  reply({
    is: 'read',
    preview: {
      heads,
      lines: table.slice(0, SHOWN).map(l => [...l]),
      count: table.length,
      roles,
      kinds,
      warnings: headProblems(heads, table.slice(0, 1_000)),
      isHeaded,
    },
  })
}

function* column(lines: Table, at: number): Generator<string> {
  for (const line of lines) yield line[at] ?? ''
}

function fromText(bytes: ArrayBuffer): Table {
  const text = decodeText(bytes)
  reply({ is: 'progress', share: 0.2 })
  const { data } = Papa.parse<string[]>(text, {
    delimitersToGuess: [',', ';', '\t', '|'],
    skipEmptyLines: 'greedy',
    preview: MOST_LINES,
  })
  reply({ is: 'progress', share: 0.8 })
  return data.map(line => line.map(unescaped))
}

/** A cell that was made safe from being read as a formula comes back as it was. */
const unescaped = (cell: string) => (/^'[=+\-@\t]/.test(cell) ? cell.slice(1) : cell)

async function fromWorkbook(file: File): Promise<Table> {
  reply({ is: 'progress', share: 0.1 })
  const [first] = await readXlsx(file, { parseNumber: numberAsSeen })
  reply({ is: 'progress', share: 0.9 })
  return (first?.data ?? []).map(line => line.map(cellOf))
}
/** A number as a sheet shows it: fifteen digits, without what the machine's fractions add beyond them. */
const numberAsSeen = (text: string): string => String(Number(Number(text).toPrecision(15)))
function cellOf(cell: unknown): string {
  if (cell instanceof Date) return cell.toISOString().slice(0, 10)
  return cell === null ? '' : String(cell)
}

function compare({ roles, kinds, before, missing }: Extract<ListsQuestion, { ask: 'compare' }>) {
  const { rows, columns, problems } = readRows(table, roles, kinds)
  const found = compareRows(before, rows)
  const { added, changed, clashing } = found
  reply({
    is: 'compared',
    comparison: {
      added: added.slice(0, SHOWN),
      changed: changed.slice(0, SHOWN),
      missing: found.missing.slice(0, SHOWN),
      clashing: clashing.slice(0, SHOWN),
      counts: {
        added: added.length,
        changed: changed.length,
        missing: found.missing.length,
        clashing: clashing.length,
        same: found.same,
      },
      problems,
      rows: mergeRows(before, rows, missing),
      columns,
    },
  })
}
