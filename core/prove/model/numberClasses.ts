import {
  add,
  compareNumbers,
  decimalPlaces,
  divide,
  floor,
  isNumber,
  multiply,
  numberFromDouble,
  numberFromText,
  subtract,
  type Num,
} from '../../expressions/decimal'
import type { Value } from '../../expressions/types'
import type { Range } from './domain'

/**
 * One number for every stretch that the constants and limits cut the line into: the constants themselves, and the gaps.
 * @param places digits after the point that answers may have; null: any
 */
export function numberClasses(
  asked: readonly Value[],
  min: number | undefined,
  max: number | undefined,
  places: number | null,
  common = 0,
): (Range & { value: Num })[] {
  const cuts = asked.filter(isNumber)
  for (const limit of [min, max]) {
    const n = limit === undefined ? null : numberFromDouble(limit)
    if (n !== null) cuts.push(n)
  }
  const sorted = cuts
    .sort(compareNumbers)
    .filter((n, i, all) => i === 0 || compareNumbers(n, all[i - 1] ?? n) !== 0)
  if (sorted.length === 0) return [{ value: common, low: null, high: null, isPoint: false }]
  const classes: (Range & { value: Num })[] = []
  const addGap = (low: Num | null, high: Num | null) => {
    const value = inGap(low, high, places, common)
    if (value !== null) classes.push({ value, low, high, isPoint: false })
  }
  addGap(null, sorted[0] ?? null)
  sorted.forEach((cut, i) => {
    if (places === null || decimalPlaces(cut) <= places)
      classes.push({ value: cut, low: cut, high: cut, isPoint: true })
    addGap(cut, sorted[i + 1] ?? null)
  })
  return classes.filter(
    ({ value }) =>
      (min === undefined || compareNumbers(value, min) >= 0) &&
      (max === undefined || compareNumbers(value, max) <= 0),
  )
}

/** Whether a number lies strictly between two; null: without end. */
const isInside = (n: Num | null, low: Num | null, high: Num | null): n is Num =>
  n !== null && (low === null || compareNumbers(n, low) > 0) && (high === null || compareNumbers(n, high) < 0)

/** A number strictly between two, with at most so many places; null when there is none. */
function inGap(low: Num | null, high: Num | null, places: number | null, common: number): Num | null {
  if (isInside(common, low, high)) return common
  const start = low === null ? floor(subtract(high ?? 0, 1) ?? 0) : floor(add(low, 1) ?? 0)
  if (isInside(start, low, high)) return start
  if (low === null || high === null) return null
  const most = places ?? 2 + Math.max(decimalPlaces(low), decimalPlaces(high))
  for (let p = 1; p <= most; p++) {
    const next = nextWithPlaces(low, p)
    if (isInside(next, low, high)) return next
  }
  return null
}

/** The least number above another that has so many digits after the point. */
function nextWithPlaces(low: Num, places: number): Num | null {
  const scale = numberFromText(`1${'0'.repeat(places)}`) ?? 1
  const steps = floor(multiply(low, scale) ?? 0)
  return steps === null ? null : divide(add(steps, 1) ?? 0, scale)
}
