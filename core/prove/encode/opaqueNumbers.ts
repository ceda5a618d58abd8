import { print } from '../../expressions/print'
import { namesIn, type Expr } from '../../expressions/tree'
import { plainCode } from '../model/entryCodes'
import type { Literal } from '../solver/literal'
import { compareRationals, times, ZERO, type Rational } from '../solver/rational'
import type { Encoder, Term } from './encoder'

/**
 * Numbers that are no sums, such as the product of two answers: one value for each calculation, with an order and bounds. So two tests of
 * one can’t contradict each other, and what lies outside the bounds is impossible; whether it can be just that number is left to the replay.
 */
export class OpaqueNumbers {
  private readonly made = new Map<string, { term: Term; expr: Expr }>()
  /** The questions that they are made of. */
  readonly names = new Set<string>()

  constructor(private readonly encoder: Encoder) {}

  product(expr: Expr, a: Term, b: Term, given: Literal): Term | null {
    if (a.unit !== 'number' || b.unit !== 'number') return null
    const { arithmetic } = this.encoder
    return this.between(expr, given, boundsOfProduct(arithmetic.span(a.linear), arithmetic.span(b.linear)))
  }

  /** A quotient; blank where it divides by zero. */
  quotient(expr: Expr, a: Term, b: Term, given: Literal): Term | null {
    if (a.unit !== 'number' || b.unit !== 'number') return null
    const { arithmetic, and } = this.encoder
    const [low, high] = arithmetic.span(b.linear)
    const isNeverZero =
      (low !== null && compareRationals(low, ZERO) > 0) || (high !== null && compareRationals(high, ZERO) < 0)
    const [least] = arithmetic.span(a.linear)
    const isPositive = (end: Rational | null) => end !== null && compareRationals(end, ZERO) >= 0
    // Of two that are not negative it is none either.
    const bounds: Span = isPositive(least) && isPositive(low) ? [ZERO, null] : [null, null]
    return this.between(expr, isNeverZero ? given : and([given, this.nonZero(b)]), bounds)
  }

  /** The literal “it is not zero”. */
  private nonZero({ linear }: Term): Literal {
    const { arithmetic, or } = this.encoder
    return or([-arithmetic.atMostZero(linear), arithmetic.atMostZero(linear, true)])
  }

  /** The calculations. */
  parts = (): Expr[] => [...this.made.values()].map(m => m.expr)

  /** The number that a calculation gives, between bounds: the same each time that it is written. */
  between(expr: Expr, given: Literal, [low, high]: Span): Term {
    this.encoder.widen()
    const key = print(expr)
    const known = this.made.get(key)
    if (known) return known.term
    for (const name of namesIn(expr)) this.names.add(plainCode(name))
    const { arithmetic, yes } = this.encoder
    const { index, linear } = arithmetic.variable(null)
    arithmetic.within(index, { literal: yes, low, high, strict: false })
    const term: Term = { linear, unit: 'number', given }
    this.made.set(key, { term, expr })
    return term
  }
}

type Span = readonly [Rational | null, Rational | null]

/** Between which numbers a product lies; without end where a factor is. */
function boundsOfProduct([a, b]: Span, [c, d]: Span): Span {
  if (a !== null && b !== null && c !== null && d !== null) {
    const corners = [times(a, c), times(a, d), times(b, c), times(b, d)].sort(compareRationals)
    return [corners[0] ?? null, corners.at(-1) ?? null]
  }
  const isPositive = (end: Rational | null) => end !== null && compareRationals(end, ZERO) >= 0
  return isPositive(a) && isPositive(c) ? [times(a ?? ZERO, c ?? ZERO), null] : [null, null]
}
