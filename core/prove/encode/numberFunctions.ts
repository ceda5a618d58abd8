import type { Literal } from '../solver/literal'
import { durationFrom } from '../../expressions/dates'
import type { Expr, ExprOf } from '../../expressions/tree'
import { constantOf, linearSum, linearTimes } from '../solver/linear'
import { negative, ONE, compareRationals, dividedBy, rational, ZERO, type Rational } from '../solver/rational'
import type { Encoder, Term } from './encoder'
import { isConstant, isDecimalDivisor, termFromDuration } from './term'

/** Functions that give numbers or times, as sums; null where one is not linear. */
export class NumberFunctions {
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

  /** The whole number next below or above. */
  private rounding(expr: Expr, name: 'floor' | 'ceiling'): Term | null {
    const term = this.encoder.term(expr)
    if (term?.unit !== 'number') return null
    const { arithmetic, solver } = this.encoder
    const { linear } = arithmetic.variable(ONE)
    const sign = rational(name === 'floor' ? 1 : -1)
    // floor: 0 ≤ x − n < 1; ceiling: 0 ≤ n − x < 1
    const gap = linearTimes(linearSum(term.linear, linear, rational(-1)), sign)
    solver.addClause([arithmetic.atMostZero(linearTimes(gap, rational(-1)))])
    solver.addClause([arithmetic.atMostZero(linearSum(gap, constantOf(ONE), rational(-1)), true)])
    return { linear, unit: 'number', given: term.given }
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
    const { arithmetic, solver } = this.encoder
    const quotient = arithmetic.variable(ONE)
    const rest = linearSum(a.linear, quotient.linear, negative(by))
    solver.addClause([arithmetic.atMostZero(linearTimes(rest, rational(-1)))])
    solver.addClause([arithmetic.atMostZero(linearSum(rest, constantOf(by), rational(-1)), true)])
    return { linear: rest, unit: 'number', given: a.given }
  }
}
