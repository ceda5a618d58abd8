import { isDuration, readableDuration } from './dates'
import { compareNumbers, compareOrdered, isNumber, numberText, sameNumber } from './decimal'
import type { Context, Value } from './types'

/** A value as plain text: numbers without exponent, dates as ISO text. */
export function valueText(value: Value): string {
  if (isNumber(value)) return numberText(value)
  if (Array.isArray(value)) return value.map(valueText).join(', ')
  if (isDuration(value)) return readableDuration(value)
  return typeof value === 'object' ? '' : String(value)
}

/** Negative, zero or positive as a comes before, with or after b; zero for values of different kinds. */
export function compareValues(a: Value, b: Value): number {
  if (isNumber(a) && isNumber(b)) return compareNumbers(a, b)
  if (typeof a === 'string' && typeof b === 'string') return compareOrdered(a, b)
  return isDuration(a) && isDuration(b) && a.unit === b.unit ? a.amount - b.amount : 0
}

/** Equality of FEEL values (DMN 1.5, table 42): null equals only null. */
export function sameValue(a: Value, b: Value): boolean {
  if (a === b) return true
  if (isNumber(a) && isNumber(b)) return sameNumber(a, b)
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => sameValue(item, b[i] ?? null))
  if (isDuration(a) && isDuration(b)) return a.unit === b.unit && a.amount === b.amount
  if (!isContext(a) || !isContext(b)) return false
  const keys = Object.keys(a)
  return (
    keys.length === Object.keys(b).length &&
    keys.every(key => key in b && sameValue(a[key] ?? null, b[key] ?? null))
  )
}

/** Whether a value has members by name: an entry, a grid, a row. */
export const isContext = (value: Value): value is Context =>
  typeof value === 'object' &&
  value !== null &&
  !Array.isArray(value) &&
  !isNumber(value) &&
  !isDuration(value)
