import { dayNumber } from '../expressions/dates'
import { compile } from '../expressions/compile'
import { isNumber, numberText } from '../expressions/decimal'
import { BOOLEAN } from '../expressions/types'
import type { Value } from '../expressions/types'
import { isContext } from '../expressions/values'
import { framesOf } from '../fill/draw'
import type { Filled, Frame } from '../fill/frame'
import type { PlannedQuestion } from '../fill/planned'
import { standpointAtEnd } from '../form/scope'
import { mayFill, type AccessView } from '../parties/access'
import type { Measure } from './measures'

/** Why a response holds no value of a measure: it was not asked; it was left blank; nobody whose turn it was could answer it so far. */
export const UNASKED = 0
export const BLANK = 1
export const AHEAD = 2
/** What a response holds of a measure: why it holds nothing, or its values (codes and texts as texts; numbers; days as their number). */
export type Cell = typeof UNASKED | typeof BLANK | typeof AHEAD | readonly (string | number)[]

/** Characters of a text that are kept to be summarised. */
const KEPT = 300

/**
 * What a response holds of each measure.
 * @param own the question of the response’s version under a code of the measures’ version; undefined where that has none
 * @param views what the turns that were taken may do; null in a form without turns
 */
export function readCells(
  measures: readonly Measure[],
  filled: Filled,
  own: (code: string) => PlannedQuestion | undefined,
  views: readonly AccessView[] | null,
): Cell[] {
  return measures.map(measure => {
    if (measure.promise !== null) return views ? AHEAD : readPromise(filled, measure.promise)
    const question = own(measure.code)
    if (!question) return UNASKED
    const frames = framesOf(filled, question)
    const values = frames.flatMap(frame => valuesIn(frame, question, measure))
    if (values.length > 0) return values
    const { place } = question
    const isFixed = place.node.type === 'value' || place.node.type === 'hidden'
    if (views && !isFixed && !views.some(view => mayFill(view, place))) return AHEAD
    return frames.some(frame => frame.inPlay[place.order] === true) ? BLANK : UNASKED
  })
}

/** Whether a response keeps a promise; unknown counts as broken. Not asked where its version doesn’t know what the promise names. */
function readPromise({ plan, values }: Filled, text: string): Cell {
  const { expr } = plan.names.read(text, standpointAtEnd(plan.form), BOOLEAN)
  if (!expr) return UNASKED
  return [compile(expr, plan.environment)(values) === true ? 'kept' : 'broken']
}

function valuesIn(frame: Frame, { slot }: PlannedQuestion, measure: Measure): (string | number)[] {
  const held = frame.values[slot] ?? null
  const value = measure.row === null ? held : rowOf(held, measure.row)
  const all: readonly Value[] = Array.isArray(value) ? value : [value]
  return all.flatMap(one => {
    const read = one === null ? null : readValue(one, measure.kind)
    return read === null ? [] : [read]
  })
}

const rowOf = (value: Value, row: string): Value => (isContext(value) ? (value[row] ?? null) : null)

function readValue(value: Exclude<Value, null>, kind: Measure['kind']): string | number | null {
  if (kind === 'number') return isNumber(value) ? Number(numberText(value)) : null
  if (kind === 'day') return typeof value === 'string' ? dayNumber(value.slice(0, 10)) : null
  if (kind === 'other') return 'given'
  if (isNumber(value)) return numberText(value)
  if (typeof value === 'boolean') return `${value}`
  return typeof value === 'string' ? value.slice(0, KEPT) : null
}
