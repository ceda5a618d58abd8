import { isDuration } from '../../expressions/dates'
import type { CompareOp } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { constantOf } from '../solver/linear'
import type { Literal } from '../solver/literal'
import { rational, type Rational } from '../solver/rational'
import type { Logic, Term, Truth, Unit } from './encoder'

/** Seconds of a day. */
export const DAY = rational(86_400)

/** A number that is always the same. */
export const constantTerm = (value: Rational, unit: Unit, given: Literal): Term => ({
  linear: constantOf(value),
  unit,
  given,
})
export const isConstant = ({ linear }: Term): boolean => linear.terms.size === 0

/** A count of units; null where there is none. */
export const termFromUnits = (n: number | null, unit: Unit, given: Literal): Term | null =>
  n === null ? null : constantTerm(rational(n), unit, given)

/** A length of time in seconds; null for one in months, which have no fixed length. */
export function termFromDuration(duration: Value, given: Literal): Term | null {
  if (!isDuration(duration) || duration.unit !== 'seconds') return null
  return constantTerm(rational(duration.amount), 'length', given)
}

/** Divisors whose quotients are decimals: no other division is exact in decimal arithmetic. */
export function isDecimalDivisor({ n }: Rational): boolean {
  let rest = n < 0n ? -n : n
  for (const prime of [2n, 5n]) while (rest !== 0n && rest % prime === 0n) rest /= prime
  return rest === 1n
}

/** A comparison of order: unknown unless both sides have a value. */
export const orderedTruth = ({ and }: Logic, a: Literal, b: Literal, holds: Literal): Truth => ({
  t: and([a, b, holds]),
  f: and([a, b, -holds]),
})

/** A comparison of equality: two blanks are equal, a blank and a value are not. */
export function equalTruth({ and, or }: Logic, op: CompareOp, a: Literal, b: Literal, holds: Literal): Truth {
  const same = or([and([a, b, holds]), and([-a, -b])])
  return op === '=' ? { t: same, f: -same } : { t: -same, f: same }
}
