import Decimal from 'decimal.js'

/**
 * Decimal numbers as FEEL defines them (34 significant digits), kept cheap.
 *
 * A number whose decimal form has at most 15 significant digits is held as a JavaScript number. That is exact: every such
 * decimal has a double of its own (IEEE 754 binary64 keeps 15 digits through a round trip), the order is the same, and the
 * shortest text of the double is the decimal again. Everything longer is a Decimal. The choice is canonical, so a number
 * and a Decimal are never equal; all arithmetic that could leave the whole numbers goes through Decimal.
 */
const D = Decimal.clone({ precision: 34, rounding: Decimal.ROUND_HALF_EVEN, toExpNeg: -40, toExpPos: 60 })
export type Num = number | Decimal

/** How long a number may be that is typed: 34 digits, a sign and a point. */
export const LONGEST_NUMBER = 36
const EXACT_DIGITS = 15
const EXACT_INTEGER = 1e15
const LARGEST_EXPONENT = 300

const isSmallInteger = (n: number) => Number.isInteger(n) && n < EXACT_INTEGER && n > -EXACT_INTEGER

function canonical(d: Decimal): Num | null {
  if (!d.isFinite()) return null
  if (d.isZero()) return 0
  if (Math.abs(d.e) > LARGEST_EXPONENT) return null
  return d.precision() <= EXACT_DIGITS ? d.toNumber() : d
}

/** The number written in a text such as `-12.50`, or null when it is not a plain decimal number (at most 34 digits). */
export function numberFromText(text: string): Num | null {
  if (!/^-?(?:\d+(?:\.\d+)?|\.\d+)$/.test(text) || text.length > LONGEST_NUMBER) return null
  return canonical(new D(text))
}

/** A JavaScript number (as JSON gives it) as an exact decimal, by its shortest text; null when it is not finite. */
export function numberFromDouble(n: number): Num | null {
  if (isSmallInteger(n)) return n === 0 ? 0 : n
  const text = String(n)
  // Up to 16 characters, one of them the point, are at most 15 digits: canonical as it stands. A whole number has no point.
  const isShort = text.includes('.') && text.length <= EXACT_DIGITS + 1 && !text.includes('e')
  if (isShort) return n
  return Number.isFinite(n) ? canonical(new D(text)) : null
}

export const isNumber = (value: unknown): value is Num =>
  typeof value === 'number' || (typeof value === 'object' && value instanceof Decimal)

/** Plain decimal text without exponent: `0.3`, `-12`. */
export const numberText = (n: Num): string =>
  typeof n === 'number' && isSmallInteger(n) ? String(n) : new D(n).toFixed()

/** Negative, zero or positive as a is less than, equal to or greater than b, of two texts or two numbers. */
export function compareOrdered<T extends string | number>(a: T, b: T): number {
  if (a < b) return -1
  return a > b ? 1 : 0
}

/** Negative, zero or positive as a is less than, equal to or greater than b. */
export function compareNumbers(a: Num, b: Num): number {
  if (typeof a === 'number' && typeof b === 'number') return compareOrdered(a, b)
  return new D(a).cmp(b)
}

export const sameNumber = (a: Num, b: Num): boolean =>
  a === b || (typeof a !== 'number' && typeof b !== 'number' && a.eq(b))

export function add(a: Num, b: Num): Num | null {
  if (typeof a === 'number' && typeof b === 'number' && isSmallInteger(a) && isSmallInteger(b)) {
    const sum = a + b
    if (isSmallInteger(sum)) return sum
  }
  return canonical(D.add(a, b))
}

export const negate = (a: Num): Num => (typeof a === 'number' ? 0 - a : a.neg())
export const subtract = (a: Num, b: Num): Num | null => add(a, negate(b))

export function multiply(a: Num, b: Num): Num | null {
  if (typeof a === 'number' && typeof b === 'number' && isSmallInteger(a) && isSmallInteger(b)) {
    const product = a * b
    if (isSmallInteger(product)) return product === 0 ? 0 : product
  }
  return canonical(D.mul(a, b))
}

/** Null when b is 0, as FEEL says. */
export const divide = (a: Num, b: Num): Num | null => (b === 0 ? null : canonical(D.div(a, b)))

const LARGEST_POWER = 1000

/** a to the power of b; null beyond ±1000 and where there is no real result. */
export function power(a: Num, b: Num): Num | null {
  if (compareNumbers(b, LARGEST_POWER) > 0 || compareNumbers(b, -LARGEST_POWER) < 0) return null
  return canonical(D.pow(a, b))
}

export const floor = (a: Num): Num | null => canonical(new D(a).floor())
export const ceiling = (a: Num): Num | null => canonical(new D(a).ceil())
export const absolute = (a: Num): Num => (compareNumbers(a, 0) < 0 ? negate(a) : a)

const ROUNDING = {
  even: Decimal.ROUND_HALF_EVEN,
  up: Decimal.ROUND_HALF_UP,
  down: Decimal.ROUND_DOWN,
} as const
const MOST_PLACES = 30
/** Rounded to so many places after the point; null when the number of places makes no sense. */
export const rounded = (a: Num, places: number, how: keyof typeof ROUNDING): Num | null =>
  Number.isInteger(places) && places >= 0 && places <= MOST_PLACES
    ? canonical(new D(a).toDecimalPlaces(places, ROUNDING[how]))
    : null

/** What is left of a division, with the sign of the divisor (DMN 1.5, `modulo`); null when b is 0. */
export function modulo(a: Num, b: Num): Num | null {
  const quotient = divide(a, b)
  const whole = quotient === null ? null : floor(quotient)
  const product = whole === null ? null : multiply(b, whole)
  return product === null ? null : subtract(a, product)
}

/** How many digits stand after the point. */
export const decimalPlaces = (a: Num): number =>
  typeof a === 'number' && Number.isInteger(a) ? 0 : new D(a).decimalPlaces()

/** The whole number of units of 10^-places in a, as BigInt; a must have no more than that many places. */
export const scaled = (a: Num, places: number): bigint =>
  BigInt(new D(a).mul(new D(10).pow(places)).toFixed(0))
/** The inverse of `scaled`. */
export const unscaled = (units: bigint, places: number): Num | null =>
  canonical(new D(units.toString()).div(new D(10).pow(places)))
