import type { Literal } from '../solver/literal'
import { durationFrom } from '../../expressions/dates'
import type { Expr, ExprOf } from '../../expressions/tree'
import { constantOf, linearSum, linearTimes, type Linear } from '../solver/linear'
import {
  negative,
  ONE,
  compareRationals,
  dividedBy,
  floorOf,
  minus,
  plus,
  rational,
  times,
  ZERO,
  type Rational,
} from '../solver/rational'
import type { Encoder, Term } from './encoder'
import { isConstant, isDecimalDivisor, termFromDuration } from './term'

/** Functions that give numbers or times, as sums; null where one is not linear. */
export class NumberFunctions {
  /** How often a divisor goes into a sum, by the sum's variables and the divisor. */
  private readonly quotients = new Map<string, { quotient: Linear; constant: Rational }>()

  constructor(private readonly encoder: Encoder) {}

  /** A call of a function that takes single values, or a list of them that is written out. */
  of({ name, args }: ExprOf<'call'>): Term | null {
    const [first] = args
    if (!first) return null
    const byName: Readonly<Record<string, () => Term | null>> = {
      duration: () =>
        first.kind === 'text' ? termFromDuration(durationFrom(first.value), this.encoder.yes) : null,
      abs: () => this.absolute(first),
      floor: () => this.rounding(first, 'floor'),
      ceiling: () => this.rounding(first, 'ceiling'),
      modulo: () => this.modulo(args),
      'round half up': () => this.roundingTo(args, HALF),
      'round down': () => this.roundingTo(args, ZERO),
    }
    return (byName[name] ?? (() => this.ofMany(name, args)))()
  }

  /** `sum`, `mean`, `min` and `max` of values that stand there one by one. */
  private ofMany(name: string, args: readonly Expr[]): Term | null {
    const terms = this.termsOf(args)
    if (terms === null) return null
    const given = this.encoder.and(terms.map(t => t.given))
    if (name === 'min' || name === 'max') return this.extreme(terms, name === 'max', given)
    if ((name !== 'sum' && name !== 'mean') || terms.some(t => t.unit !== 'number')) return null
    const total = terms.reduce((sum, t) => linearSum(sum, t.linear), constantOf(ZERO))
    if (name === 'sum') return { linear: total, unit: 'number', given }
    const count = rational(terms.length)
    if (!isDecimalDivisor(count)) return null
    return { linear: linearTimes(total, dividedBy(ONE, count)), unit: 'number', given }
  }

  /** The values that a function is given one by one; null when one of them is no sum. */
  private termsOf(args: readonly Expr[]): Term[] | null {
    const [first] = args
    const items = args.length === 1 && first?.kind === 'list' ? first.items : args
    if (args.length === 1 && first?.kind !== 'list') return null
    const terms = items.map(item => this.encoder.term(item))
    const all = terms.filter(t => t !== null)
    return all.length === terms.length && all.length > 0 ? all : null
  }

  private absolute(expr: Expr): Term | null {
    const term = this.encoder.term(expr)
    if (term?.unit !== 'number') return null
    const minusTerm = linearTimes(term.linear, rational(-1))
    const below = this.encoder.arithmetic.atMostZero(term.linear)
    return {
      ...this.encoder.among('number', [
        { when: below, linear: minusTerm, given: term.given },
        { when: -below, linear: term.linear, given: term.given },
      ]),
      given: term.given,
    }
  }

  /** The whole number next below or above: how often one goes into it, or into its opposite. */
  private rounding(expr: Expr, name: 'floor' | 'ceiling'): Term | null {
    const term = this.encoder.term(expr)
    if (term?.unit !== 'number') return null
    const sign = rational(name === 'floor' ? 1 : -1)
    const whole = this.quotientOf(linearTimes(term.linear, sign), ONE)
    return { linear: linearTimes(whole, sign), unit: 'number', given: term.given }
  }

  /** Rounded to places that are written out (DMN 1.5, numeric functions). */
  private roundingTo([number, scale]: readonly Expr[], from: Rational): Term | null {
    const term = number ? this.encoder.term(number) : null
    const places = scale ? placesIn(this.encoder.term(scale)) : null
    if (term?.unit !== 'number' || places === null) return null
    return { ...term, linear: this.roundedTo(term.linear, places, from) }
  }

  /** A sum rounded to so many places, by its size: what is added to it counts on to the next of its units; a half, or nothing. */
  roundedTo(linear: Linear, places: bigint, added: Rational): Linear {
    const { arithmetic, yes } = this.encoder
    const unit = rational(1, 10n ** places)
    const units = linearTimes(linear, dividedBy(ONE, unit))
    // The factors of a variable count in its grids already.
    if (arithmetic.isWhole(units)) return linear
    const onSide = (sign: Rational): Linear => {
      const size = linearSum(linearTimes(units, sign), constantOf(added))
      return linearTimes(this.quotientOf(size, ONE), times(sign, unit))
    }
    const [low, high] = arithmetic.span(linear)
    if (low !== null && compareRationals(low, ZERO) >= 0) return onSide(ONE)
    if (high !== null && compareRationals(high, ZERO) <= 0) return onSide(negative(ONE))
    const below = arithmetic.atMostZero(linear)
    const sides = [
      { when: below, linear: onSide(negative(ONE)), given: yes },
      { when: -below, linear: onSide(ONE), given: yes },
    ]
    return this.encoder.among('number', sides).linear
  }

  /** The remainder of a division by a constant above zero: x = k·q + r, 0 ≤ r < k (DMN 1.5, table 75). */
  private modulo([dividend, divisor]: readonly Expr[]): Term | null {
    const [a, b] = [
      dividend ? this.encoder.term(dividend) : null,
      divisor ? this.encoder.term(divisor) : null,
    ]
    if (
      a?.unit !== 'number' ||
      b?.unit !== 'number' ||
      !isConstant(b) ||
      compareRationals(b.linear.constant, ZERO) <= 0
    )
      return null
    return { ...this.remainder(a, b.linear.constant), given: this.encoder.and([a.given, b.given]) }
  }

  private extreme(terms: readonly Term[], most: boolean, given: Literal): Term | null {
    const [first] = terms
    if (!first || terms.some(t => t.unit !== first.unit)) return null
    const { arithmetic, solver } = this.encoder
    const { linear } = arithmetic.variable(terms.every(t => arithmetic.isWhole(t.linear)) ? ONE : null)
    const sign = rational(most ? 1 : -1)
    // No term lies beyond it, and one of them reaches it.
    for (const t of terms)
      solver.addClause([arithmetic.atMostZero(linearTimes(linearSum(t.linear, linear, rational(-1)), sign))])
    solver.addClause(
      terms.map(t => arithmetic.atMostZero(linearTimes(linearSum(linear, t.linear, rational(-1)), sign))),
    )
    return { linear, unit: first.unit, given }
  }

  /** What is left of a number when as many whole divisors as fit are taken away. */
  remainder(a: Term, by: Rational): Term {
    const rest = linearSum(a.linear, this.quotientOf(a.linear, by), negative(by))
    return { linear: rest, unit: 'number', given: a.given }
  }

  /**
   * How often a divisor goes wholly into a sum: q with 0 ≤ sum − k·q < k. One variable for all sums that differ by a constant: what several
   * tests of one number say of unrelated quotients would be sought for through all numbers there are.
   */
  private quotientOf(sum: Linear, by: Rational): Linear {
    const key = `${keyOf(sum)}:${by.n}/${by.d}`
    const known = this.quotients.get(key)
    const quotient = known
      ? linearSum(known.quotient, this.further(minus(sum.constant, known.constant), by))
      : this.encoder.arithmetic.variable(ONE).linear
    if (!known) this.quotients.set(key, { quotient, constant: sum.constant })
    const { arithmetic, solver } = this.encoder
    const rest = linearSum(sum, quotient, negative(by))
    solver.addClause([arithmetic.atMostZero(linearTimes(rest, rational(-1)))])
    solver.addClause([arithmetic.atMostZero(linearSum(rest, constantOf(by), rational(-1)), true)])
    return quotient
  }

  /** By how much a quotient grows with what is added: one of two neighbouring whole numbers. */
  private further(added: Rational, by: Rational): Linear {
    if (added.n === 0n) return constantOf(ZERO)
    const low = rational(floorOf(dividedBy(added, by)))
    const { arithmetic, yes } = this.encoder
    const { index, linear } = arithmetic.variable(ONE, low)
    arithmetic.within(index, { literal: yes, low, high: plus(low, ONE), strict: false })
    return linear
  }
}

/** What is rounded half away from zero goes on from there. */
export const HALF = rational(1, 2n)
/** So many places after the point can be asked for. */
const MOST_PLACES = 30

/** The number of places that a term stands for; null where it is none. */
function placesIn(term: Term | null): bigint | null {
  if (term?.unit !== 'number' || !isConstant(term)) return null
  const { n, d } = term.linear.constant
  return d === 1n && n >= 0n && n <= MOST_PLACES ? n : null
}

const keyOf = ({ terms }: Linear): string =>
  [...terms]
    .sort(([a], [b]) => a - b)
    .map(([v, f]) => `${v}*${f.n}/${f.d}`)
    .join('+')
