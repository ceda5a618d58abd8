import { durationText, isDuration } from '../expressions/dates'
import { isNumber, numberText } from '../expressions/decimal'
import type { Value } from '../expressions/types'
import type { Answer } from '../form/answers'

/** A value as an answer would give it: how defaults and witnesses become answers. */
export function answerOf(value: Value): Answer {
  if (isNumber(value)) return typeof value === 'number' ? value : numberText(value)
  if (typeof value !== 'object' || value === null) return value
  if (Array.isArray(value)) return value.map((item: Value) => answerOf(item))
  if (isDuration(value)) return durationText(value)
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== null)
      .map(([key, v]) => [key, answerOf(v)]),
  )
}
