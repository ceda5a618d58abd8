import { isoFromDay } from '../expressions/dates'
import { binCondition, choiceCondition, daysCondition } from './conditions'
import { nextSpan, spanFor, spanStart, type Span } from './days'
import { ANSWERED, type Column, type FactTable } from './factTable'
import { binAt, binEdges } from './numbers'

/** A value along one side of a table. `asked`: the condition in the rule language that is true of those who are in it; null where there is none. */
export interface Heading {
  code: string
  label: string
  asked: string | null
}

/** One side of a table: the values along it, and at which of them a response stands: at several, where several were chosen; at none, where there is no answer. */
export interface Dimension {
  key: string
  label: string
  headings: Heading[]
  at: (row: number) => readonly number[]
}

/** What of a response can be a side besides its answers. */
export const FACT_DIMENSIONS = [
  { key: '@release', label: 'Version' },
  { key: '@state', label: 'State' },
  { key: '@month', label: 'Month in which it was sent' },
] as const

const MOST_HEADINGS = 60
const DAY = 86_400_000

/** A side of a table by its key: that of a measure, or one of `FACT_DIMENSIONS`; null where there is none, or it has no values to stand along it. */
export function dimensionOf(table: FactTable, key: string, rows: Int32Array): Dimension | null {
  if (key.startsWith('@')) return factDimension(table, key, rows)
  const column = table.columnOf(key)
  if (!column) return null
  const { kind, label } = column.measure
  const at = (index: (value: number) => number) => (row: number) =>
    column.states[row] === ANSWERED ? unique(column.valuesAt(row).map(index)) : []
  if (kind === 'choice') {
    const headings = column.texts.slice(0, MOST_HEADINGS).map((code, i) => choiceHeading(column, code, i))
    return { key, label, headings, at: at(value => value) }
  }
  const values = numbersIn(column, rows)
  const [min, max] = [values[0], values.at(-1)]
  if (min === undefined || max === undefined) return { key, label, headings: [], at: () => [] }
  if (kind === 'number') {
    const edges = binEdges(min, max, values.every(Number.isInteger))
    const headings = edges.slice(0, -1).map((from, i) => binHeading(column, edges, from, i))
    return { key, label, headings, at: at(value => binAt(edges, value)) }
  }
  if (kind !== 'day') return null
  const { headings, index } = spansOf(min, max, column.measure.asked)
  return { key, label, headings, at: at(index) }
}

const unique = (values: readonly number[]) => (values.length < 2 ? values : [...new Set(values)])

function choiceHeading({ measure }: Column, code: string, i: number): Heading {
  const option = measure.options[i]
  return { code, label: option?.label ?? code, asked: option ? choiceCondition(measure, code) : null }
}

function binHeading({ measure }: Column, edges: readonly number[], from: number, i: number): Heading {
  const to = edges[i + 1] ?? from
  const isLast = i === edges.length - 2
  const isOne = to - from === 1 && edges.every(Number.isInteger)
  const asked = binCondition(measure, from, to, isLast)
  return { code: `${from}`, label: isOne ? `${from}` : `${from} to ${to}`, asked }
}

/** The numbers that some rows hold, sorted. */
function numbersIn(column: Column, rows: Int32Array): number[] {
  const values: number[] = []
  for (const row of rows) if (column.states[row] === ANSWERED) values.push(...column.valuesAt(row))
  return values.sort((a, b) => a - b)
}

function spansOf(first: number, last: number, code: string | null) {
  const span = spanFor(first, last)
  const starts: number[] = []
  for (
    let at = spanStart(first, span);
    at <= last && starts.length < MOST_HEADINGS * 4;
    at = nextSpan(at, span)
  )
    starts.push(at)
  const edges = [...starts, nextSpan(starts.at(-1) ?? first, span)]
  const headings = starts.map((start, i) => spanHeading(start, edges[i + 1] ?? start, span, code))
  return { headings, index: (day: number) => binAt(edges, day) }
}

function spanHeading(start: number, next: number, span: Span, code: string | null): Heading {
  const [from, to] = [isoFromDay(start), isoFromDay(next)]
  const asked = code && daysCondition(code, from, to)
  const length = { day: 10, week: 10, month: 7, year: 4 }[span]
  return { code: from, label: from.slice(0, length), asked }
}

/** A side that is known of every response. */
function factDimension(table: FactTable, key: string, rows: Int32Array): Dimension | null {
  const known = FACT_DIMENSIONS.find(d => d.key === key)
  if (!known) return null
  if (known.key === '@month') {
    const days = Array.from(rows, row => Math.floor(table.factsAt(row).sentAt / DAY)).sort((a, b) => a - b)
    return monthDimension(table, known.label, days)
  }
  const isRelease = known.key === '@release'
  const valueAt = (row: number) => {
    const { release, state } = table.factsAt(row)
    return isRelease ? `${release}` : state
  }
  const codes = [...new Set(Array.from(rows, valueAt))].sort((a, b) =>
    a.localeCompare(b, 'en', { numeric: true }),
  )
  const index = new Map(codes.map((code, i) => [code, i]))
  const headings = codes.map(code => ({ code, label: isRelease ? `version ${code}` : code, asked: null }))
  return { key, label: known.label, headings, at: row => [index.get(valueAt(row)) ?? 0] }
}

function monthDimension(table: FactTable, label: string, days: readonly number[]): Dimension {
  const [first = 0, last = 0] = [days[0], days.at(-1)]
  const starts: number[] = []
  for (
    let at = spanStart(first, 'month');
    at <= last && starts.length < MOST_HEADINGS;
    at = nextSpan(at, 'month')
  )
    starts.push(at)
  const edges = [...starts, nextSpan(starts.at(-1) ?? first, 'month')]
  const headings = starts.map(start => {
    const code = isoFromDay(start).slice(0, 7)
    return { code, label: code, asked: null }
  })
  const at = (row: number) => [binAt(edges, Math.floor(table.factsAt(row).sentAt / DAY))]
  return { key: '@month', label, headings, at }
}
