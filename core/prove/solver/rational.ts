import { numberFromText, numberText, type Num } from '../../expressions/decimal'

/** An exact fraction: reduced, the denominator above zero. */
export interface Rational {
  n: bigint
  d: bigint
}

const abs = (a: bigint) => (a < 0n ? -a : a)

/** The greatest common divisor (Euclid). */
export function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [abs(a), abs(b)]
  while (y !== 0n) [x, y] = [y, x % y]
  return x
}

/** @throws RangeError when the denominator is zero */
export function rational(n: bigint | number, d: bigint = 1n): Rational {
  if (d === 0n) throw new RangeError('A fraction with zero below the line.')
  const over = BigInt(n)
  if (d === 1n) return { n: over, d }
  const shared = gcd(over, d) * (d < 0n ? -1n : 1n)
  return { n: over / shared, d: d / shared }
}

export const ZERO = rational(0)
export const ONE = rational(1)

export const plus = (a: Rational, b: Rational): Rational =>
  a.d === 1n && b.d === 1n ? { n: a.n + b.n, d: 1n } : rational(a.n * b.d + b.n * a.d, a.d * b.d)
export const minus = (a: Rational, b: Rational): Rational => plus(a, negative(b))
export const negative = (a: Rational): Rational => ({ n: -a.n, d: a.d })
export const times = (a: Rational, b: Rational): Rational =>
  a.d === 1n && b.d === 1n ? { n: a.n * b.n, d: 1n } : rational(a.n * b.n, a.d * b.d)
/** @throws RangeError when divided by zero */
export const dividedBy = (a: Rational, b: Rational): Rational => rational(a.n * b.d, a.d * b.n)
/** Below zero, zero or above, as a comes before, with or after b. */
export function compareRationals(a: Rational, b: Rational): number {
  const [x, y] = [a.n * b.d, b.n * a.d]
  if (x < y) return -1
  return x > y ? 1 : 0
}
export const isWhole = (a: Rational): boolean => a.d === 1n
/** The greatest whole number not above. */
export const floorOf = (a: Rational): bigint => a.n / a.d - (a.n % a.d < 0n ? 1n : 0n)
/** The least whole number not below. */
export const ceilingOf = (a: Rational): bigint => -floorOf(negative(a))

/** A decimal number as a fraction. */
export function fromDecimal(value: Num): Rational {
  const [whole = '0', digits = ''] = numberText(value).split('.')
  return rational(BigInt(whole + digits), 10n ** BigInt(digits.length))
}

/** A fraction as a decimal number; null when its decimal form has no end, or is too long. */
export function toDecimal({ n, d }: Rational): Num | null {
  let places = 0
  let rest = d
  for (const prime of [2n, 5n]) {
    let count = 0
    while (rest % prime === 0n) {
      rest /= prime
      count += 1
    }
    places = Math.max(places, count)
  }
  if (rest !== 1n || places > 30) return null
  const digits = abs((n * 10n ** BigInt(places)) / d)
    .toString()
    .padStart(places + 1, '0')
  const text = places === 0 ? digits : `${digits.slice(0, -places)}.${digits.slice(-places)}`
  return numberFromText(n < 0n ? `-${text}` : text)
}
