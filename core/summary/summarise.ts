import { choiceCondition } from './conditions'
import { countDays, type Span, type SpanCount } from './days'
import { ANSWERED, type Column, type FactTable } from './factTable'
import type { Measure } from './measures'
import { summariseNumbers, type NumberSummary } from './numbers'
import { countWords, type WordCount } from './words'

/** How often an option occurs; `place`: the mean place that it was given, of those put into an order. */
export interface OptionCount {
  code: string
  label: string
  count: number
  place: number | null
  /** The condition in the rule language that is true of those who chose it; null where there is none. */
  asked: string | null
}

/**
 * What some responses say to one measure. `asked`: of how many it was asked, `answered` and `blank` among them; `ahead`: whose turn it is
 * has not come; `unasked`: who were not asked. `values`: how many values were given. By its kind: `options` in the order of the form, with
 * the mean of their points; `numbers`; `days`; `words`.
 */
export interface MeasureSummary {
  measure: Measure
  asked: number
  answered: number
  blank: number
  ahead: number
  unasked: number
  values: number
  options: OptionCount[]
  points: NumberSummary | null
  numbers: NumberSummary | null
  days: { span: Span; spans: SpanCount[] } | null
  words: WordCount[] | null
}

/** So many words are told, and so many options that no version lists. */
const MOST_WORDS = 60
const MOST_OTHERS = 50

/** Summarises a measure over some rows of a table. */
export function summariseMeasure(column: Column, rows: Int32Array): MeasureSummary {
  const { measure } = column
  const states = countStates(column, rows)
  const held = valuesOf(column, rows)
  const isChoice = measure.kind === 'choice'
  return {
    measure,
    ...states,
    values: held.length,
    options: isChoice ? countOptions(column, held, rows) : [],
    points: isChoice ? summarisePoints(column, held) : null,
    numbers: measure.kind === 'number' ? summariseNumbers(held) : null,
    days: measure.kind === 'day' ? countDays(held) : null,
    words: measure.kind === 'text' ? countWords(countTexts(column, held), MOST_WORDS) : null,
  }
}

/** Summarises every measure of a table. */
export const summariseTable = (table: FactTable, rows: Int32Array): MeasureSummary[] =>
  table.columns.map(column => summariseMeasure(column, rows))

function countStates(column: Column, rows: Int32Array) {
  const counts = [0, 0, 0, 0]
  for (const row of rows) {
    const state = column.states[row] ?? 0
    counts[state] = (counts[state] ?? 0) + 1
  }
  const [unasked = 0, blank = 0, ahead = 0, answered = 0] = counts
  return { asked: blank + answered, answered, blank, ahead, unasked }
}

/** All values that some rows hold. */
function valuesOf(column: Column, rows: Int32Array): Float64Array {
  if (!column.measure.isSeveral) {
    const held = new Float64Array(rows.length)
    let count = 0
    for (const row of rows) if (column.states[row] === ANSWERED) held[count++] = column.values[row] ?? 0
    return held.subarray(0, count)
  }
  const held: number[] = []
  for (const row of rows) if (column.states[row] === ANSWERED) held.push(...column.valuesAt(row))
  return Float64Array.from(held)
}

function countOptions(column: Column, held: Float64Array, rows: Int32Array): OptionCount[] {
  const { measure, texts } = column
  const counts = new Uint32Array(texts.length)
  for (const value of held) counts[value] = (counts[value] ?? 0) + 1
  const places = measure.isRanked ? meanPlaces(column, rows) : null
  const listed = measure.options.length
  return texts
    .map((code, i) => ({
      code,
      label: measure.options[i]?.label ?? code,
      count: counts[i] ?? 0,
      place: places?.[i] ?? null,
      asked: i < listed ? choiceCondition(measure, code) : null,
    }))
    .filter((option, i) => i < listed || (option.count > 0 && i < listed + MOST_OTHERS))
}

/** The mean place that each option was given. */
function meanPlaces(column: Column, rows: Int32Array): (number | null)[] {
  const sums = column.texts.map(() => ({ sum: 0, count: 0 }))
  for (const row of rows) {
    if (column.states[row] !== ANSWERED) continue
    for (const [place, value] of column.valuesAt(row).entries()) {
      const of = sums[value]
      if (!of) continue
      of.sum += place + 1
      of.count += 1
    }
  }
  return sums.map(({ sum, count }) => (count === 0 ? null : sum / count))
}

function summarisePoints({ measure }: Column, held: Float64Array): NumberSummary | null {
  const points = measure.options.map(option => option.points)
  if (points.every(p => p === null)) return null
  const given: number[] = []
  for (const value of held) {
    const point = points[value]
    if (point !== null && point !== undefined) given.push(point)
  }
  return summariseNumbers(given)
}

function countTexts(column: Column, held: Float64Array): Map<string, number> {
  const counts = new Map<string, number>()
  for (const value of held) {
    const text = column.texts[value] ?? ''
    counts.set(text, (counts.get(text) ?? 0) + 1)
  }
  return counts
}
