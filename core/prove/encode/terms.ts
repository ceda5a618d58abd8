import { dayNumber, durationFrom, FIRST_DAY, instant, isDuration, LAST_DAY } from '../../expressions/dates'
import { isNumber } from '../../expressions/decimal'
import { nodesOf, type CompareOp, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { Ages } from './ages'
import { Carried } from './chosenNumbers'
import { constantOf, linearSum, linearTimes, type Linear } from '../solver/linear'
import type { Encoding, Truth } from './encoding'
import { plainCode, single } from '../model/entries'
import {
  fromDecimal,
  isWhole,
  negative,
  ONE,
  order,
  over,
  rational,
  ZERO,
  type Rational,
} from '../solver/rational'
import type { Literal } from '../solver/literal'

/** What numbers count: plain numbers, days of dates, seconds of instants and clocks, and lengths of time in seconds. */
export type Unit = 'number' | 'day' | 'second' | 'clock' | 'length'
/** An expression as a sum, and when it has a value. */
export interface Term {
  linear: Linear
  unit: Unit
  given: Literal
}

const DAY = rational(86_400)
export const constant = (value: Rational, unit: Unit, given: Literal): Term => ({
  linear: constantOf(value),
  unit,
  given,
})
const isConstant = ({ linear }: Term) => linear.terms.size === 0
/** Divisors whose quotients are decimals: no other division is exact in decimal arithmetic. */
const isDecimal = ({ n }: Rational): boolean => {
  let rest = n < 0n ? -n : n
  for (const prime of [2n, 5n]) while (rest !== 0n && rest % prime === 0n) rest /= prime
  return rest === 1n
}

/** Expressions over numbers and times as linear sums for the theory of arithmetic; null where one is not linear. */
export class Terms {
  private readonly ofQuestion = new Map<string, Term | null>()
  private readonly built = new Map<Expr, Term | null>()
  /** Once a condition asks for it. */
  today: Term | null = null
  todayIndex: number | null = null

  private readonly ages: Ages
  readonly carried: Carried

  constructor(private readonly encoding: Encoding) {
    this.ages = new Ages(encoding, this)
    this.carried = new Carried(encoding, this)
  }

  /** The variables of questions, to read an example from. */
  readonly variables = new Map<string, number>()

  of(expr: Expr): Term | null {
    const known = this.built.get(expr)
    if (known !== undefined) return known
    const made = this.build(expr)
    this.built.set(expr, made)
    return made
  }

  private build(expr: Expr): Term | null {
    const { yes } = this.encoding
    switch (expr.kind) {
      case 'number':
        return constant(fromDecimal(expr.value), 'number', yes)
      case 'date':
        return fromUnits(dayNumber(expr.value), 'day', yes)
      case 'dateTime':
        return fromUnits(instant(expr.value), 'second', yes)
      case 'time':
        return fromUnits(instant(expr.value), 'clock', yes)
      case 'duration':
        return lengthOf(durationFrom(expr.value), yes)
      case 'name':
        return this.question(expr.name)
      case 'negate':
        return this.scaled(expr.value, rational(-1))
      case 'arithmetic':
        return this.arithmetic(expr)
      case 'if':
        return this.choice(expr)
      case 'call':
        return this.call(expr)
      case 'path':
      case 'filter': {
        const one = single(expr, this.encoding.model.copies)
        return one !== expr ? this.of(one) : expr.kind === 'path' ? this.path(expr) : null
      }
      default:
        return null
    }
  }

  /** The answer of a question that holds numbers or times. */
  question(of: string): Term | null {
    const code = plainCode(of)
    const known = this.ofQuestion.get(code)
    if (known !== undefined) return known
    this.ofQuestion.set(code, null) // a value that depends on itself is none
    const made = this.makeQuestion(code)
    this.ofQuestion.set(code, made)
    return made
  }

  private makeQuestion(code: string): Term | null {
    const { model } = this.encoding
    const question = model.stepOf(code)
    const unit = UNITS[model.copies.typeOf(code).kind]
    if (!question || unit === undefined) return null
    const { blank, classes, domain } = this.encoding.variable(code)
    if (question.value !== null) {
      const inner = question.value.expr ? this.of(question.value.expr) : null
      return inner && { ...inner, linear: this.rounded(question.place.node, inner.linear), given: -blank }
    }
    const { ranges } = domain
    if (!ranges || domain.many) return null
    const places = domain.places ?? null
    const sample = domain.classes[0]
    const start = isNumber(sample)
      ? fromDecimal(sample)
      : typeof sample === 'string'
        ? rational(instant(sample) ?? dayNumber(sample) ?? 0)
        : ZERO
    const { index, linear } = this.encoding.arithmetic.variable(
      places === null ? null : rational(1, 10n ** BigInt(places)),
      start,
    )
    this.variables.set(code, index)
    const limit = LIMITS[unit]
    if (limit)
      this.encoding.arithmetic.within(index, {
        literal: this.encoding.yes,
        low: rational(limit[0]),
        high: rational(limit[1]),
        strict: false,
      })
    // Left blank it still stands for some number that could be answered: without limits, whole numbers could be sought for without end.
    const [first, last] = [ranges[0], ranges[ranges.length - 1]]
    if (first && last)
      this.encoding.arithmetic.within(index, {
        literal: this.encoding.yes,
        low: first.low === null ? null : fromDecimal(first.low),
        high: last.high === null ? null : fromDecimal(last.high),
        strict: false,
      })
    // A read-only one is what its default is, somewhere within the limits.
    if (domain.opaque) this.encoding.widen()
    else {
      classes.forEach(({ literal }, i) => {
        const range = ranges[i]
        if (range)
          this.encoding.arithmetic.within(index, {
            literal,
            low: range.low === null ? null : fromDecimal(range.low),
            high: range.high === null ? null : fromDecimal(range.high),
            strict: !range.isPoint,
          })
      })
    }
    return { linear, unit, given: -blank }
  }

  /** A calculated value is rounded to its places, halves away from zero: exact where it has no more places anyway. */
  private rounded(node: { type: string; decimals?: number; currency?: string }, linear: Linear): Linear {
    const places = node.decimals ?? (node.currency === undefined ? undefined : 2)
    if (places === undefined) return linear
    const unit = rational(1, 10n ** BigInt(places))
    const { arithmetic } = this.encoding
    // The factors of a variable count in its grids already.
    if (arithmetic.isWhole(linearTimes(linear, over(ONE, unit)))) return linear
    const { linear: result } = arithmetic.variable(unit)
    const gap = linearSum(result, linear, rational(-1))
    const half = constantOf(over(unit, rational(2)))
    const { solver } = this.encoding
    solver.addClause([arithmetic.atMostZero(linearSum(gap, half, rational(-1)))])
    solver.addClause([arithmetic.atMostZero(linearSum(linearTimes(gap, rational(-1)), half, rational(-1)))])
    this.encoding.widen() // which way a half goes is left to the replay
    return result
  }

  private scaled(expr: Expr, by: Rational): Term | null {
    const term = this.of(expr)
    return term && (term.unit === 'number' || term.unit === 'length')
      ? { ...term, linear: linearTimes(term.linear, by) }
      : null
  }

  private arithmetic({ op, left, right }: ExprOf<'arithmetic'>): Term | null {
    const [a, b] = [this.of(left), this.of(right)]
    if (!a || !b) return null
    const given = this.encoding.and([a.given, b.given])
    if (op === '+' || op === '-') return this.sum(a, b, op === '+' ? ONE : rational(-1), given)
    if (b.unit !== 'number' && !(op === '*' && a.unit === 'number')) return null
    if (op === '*') {
      const [factor, other] = isConstant(a) ? [a, b] : [b, a]
      // Lengths are cut to whole seconds: only whole multiples are sure not to be.
      if (
        !isConstant(factor) ||
        factor.unit !== 'number' ||
        (other.unit !== 'number' && !(other.unit === 'length' && isWhole(factor.linear.constant)))
      )
        return null
      return { linear: linearTimes(other.linear, factor.linear.constant), unit: other.unit, given }
    }
    if (
      op !== '/' ||
      a.unit !== 'number' ||
      !isConstant(b) ||
      b.linear.constant.n === 0n ||
      !isDecimal(b.linear.constant)
    )
      return null
    return { linear: linearTimes(a.linear, over(ONE, b.linear.constant)), unit: 'number', given }
  }

  private sum(a: Term, b: Term, by: Rational, given: Literal): Term | null {
    const isMinus = by.n < 0n
    if (a.unit === b.unit && (a.unit === 'number' || a.unit === 'length'))
      return { linear: linearSum(a.linear, b.linear, by), unit: a.unit, given }
    if (isMinus && a.unit === b.unit)
      return {
        linear: linearTimes(linearSum(a.linear, b.linear, by), a.unit === 'day' ? DAY : ONE),
        unit: 'length',
        given,
      }
    if (a.unit === 'day' && b.unit === 'length' && isConstant(b)) {
      const days = over(b.linear.constant, DAY)
      return isWhole(days) ? { linear: linearSum(a.linear, constantOf(days), by), unit: 'day', given } : null
    }
    if (a.unit === 'second' && b.unit === 'length')
      return { linear: linearSum(a.linear, b.linear, by), unit: 'second', given }
    if (!isMinus && a.unit === 'length' && (b.unit === 'day' || b.unit === 'second'))
      return this.sum(b, a, by, given)
    return null
  }

  /** `if … then a else b`: a number that equals the one or the other. */
  private choice({ test, then, else: otherwise }: ExprOf<'if'>): Term | null {
    const [a, b] = [this.orNull(then), this.orNull(otherwise)]
    const unit = a?.unit ?? b?.unit
    if (a === undefined || b === undefined || unit === undefined || (a && b && a.unit !== b.unit)) return null
    const { t } = this.encoding.truth(test)
    return this.among(unit, [
      ...(a ? [{ when: t, linear: a.linear, given: a.given }] : []),
      ...(b ? [{ when: -t, linear: b.linear, given: b.given }] : []),
    ])
  }

  /** A term, null for the literal `null`; undefined where it is not linear. */
  private orNull(expr: Expr): Term | null | undefined {
    return expr.kind === 'null' ? null : (this.of(expr) ?? undefined)
  }

  /** A number that equals each of some sums while its literal is true; none or one of them is. */
  among(unit: Unit, cases: readonly { when: Literal; linear: Linear; given: Literal }[]): Term {
    const { arithmetic, solver, and, or } = this.encoding
    const given = or(cases.map(c => and([c.when, c.given])))
    const { index, linear } = arithmetic.variable(cases.every(c => arithmetic.isWhole(c.linear)) ? ONE : null)
    const spans = cases.map(c => arithmetic.span(c.linear))
    const end = (at: 0 | 1) =>
      spans.some(s => s[at] === null)
        ? null
        : (spans
            .flatMap(s => s[at] ?? [])
            .sort(order)
            .at(at === 0 ? 0 : -1) ?? null)
    arithmetic.within(index, { literal: this.encoding.yes, low: end(0), high: end(1), strict: false })
    for (const c of cases) {
      const gap = linearSum(linear, c.linear, rational(-1))
      solver.addClause([-c.when, arithmetic.atMostZero(gap)])
      solver.addClause([-c.when, arithmetic.atMostZero(linearTimes(gap, rational(-1)))])
    }
    return { linear, unit, given }
  }

  private call(expr: ExprOf<'call'>): Term | null {
    const { name, args } = expr
    const [first] = args
    if (name === 'today' && args.length === 0) return this.day()
    if (!first) return null
    const ofEntries = this.encoding.entered.aggregate(expr)
    if (ofEntries) return ofEntries
    if (name === 'count') return first.kind === 'name' ? this.carried.count(first.name) : null
    if (name === 'duration')
      return first.kind === 'text' ? lengthOf(durationFrom(first.value), this.encoding.yes) : null
    if (name === 'sum' && args.length === 1 && first.kind === 'path') return this.carried.sum(first)
    if (name === 'abs') return this.absolute(first)
    if (name === 'floor' || name === 'ceiling') return this.rounding(first, name)
    if (name === 'modulo') return this.modulo(args)
    const items = args.length === 1 && first.kind === 'list' ? first.items : args.length > 1 ? args : null
    const terms = items?.map(item => this.of(item)) ?? []
    if (terms.length === 0 || terms.some(t => t === null)) return null
    const all = terms.flatMap(t => t ?? [])
    const given = this.encoding.and(all.map(t => t.given))
    if (name === 'min' || name === 'max') return this.extreme(all, name === 'max', given)
    if ((name !== 'sum' && name !== 'mean') || all.some(t => t.unit !== 'number')) return null
    const total = all.reduce((sum, t) => linearSum(sum, t.linear), constantOf(ZERO))
    const count = rational(all.length)
    if (name === 'mean')
      return isDecimal(count) ? { linear: linearTimes(total, over(ONE, count)), unit: 'number', given } : null
    return { linear: total, unit: 'number', given }
  }

  /** Today: any day from the one on which is proved, for ten years. */
  private day(): Term {
    if (this.today) return this.today
    const from = dayNumber(this.encoding.model.today) ?? 0
    const { index, linear } = this.encoding.arithmetic.variable(ONE, rational(from))
    this.encoding.arithmetic.within(index, {
      literal: this.encoding.yes,
      low: rational(from),
      high: rational(from + TEN_YEARS),
      strict: false,
    })
    this.todayIndex = index
    return (this.today = { linear, unit: 'day', given: this.encoding.yes })
  }

  private absolute(expr: Expr): Term | null {
    const term = this.of(expr)
    if (term?.unit !== 'number') return null
    const minusTerm = linearTimes(term.linear, rational(-1))
    const below = this.encoding.arithmetic.atMostZero(term.linear)
    return {
      ...this.among('number', [
        { when: below, linear: minusTerm, given: term.given },
        { when: -below, linear: term.linear, given: term.given },
      ]),
      given: term.given,
    }
  }

  /** The whole number next below or above. */
  private rounding(expr: Expr, name: 'floor' | 'ceiling'): Term | null {
    const term = this.of(expr)
    if (term?.unit !== 'number') return null
    const { arithmetic, solver } = this.encoding
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
    const [a, b] = [dividend ? this.of(dividend) : null, divisor ? this.of(divisor) : null]
    if (a?.unit !== 'number' || b?.unit !== 'number' || !isConstant(b) || order(b.linear.constant, ZERO) <= 0)
      return null
    return { ...this.remainder(a, b.linear.constant), given: this.encoding.and([a.given, b.given]) }
  }

  private remainder(a: Term, by: Rational): Term {
    const { arithmetic, solver } = this.encoding
    const quotient = arithmetic.variable(ONE)
    const rest = linearSum(a.linear, quotient.linear, negative(by))
    solver.addClause([arithmetic.atMostZero(linearTimes(rest, rational(-1)))])
    solver.addClause([arithmetic.atMostZero(linearSum(rest, constantOf(by), rational(-1)), true)])
    return { linear: rest, unit: 'number', given: a.given }
  }

  private extreme(terms: readonly Term[], most: boolean, given: Literal): Term | null {
    const [first] = terms
    if (!first || terms.some(t => t.unit !== first.unit)) return null
    const { arithmetic, solver } = this.encoding
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

  /** Days of a length of time, the day of the week, or what a chosen row holds. */
  private path(expr: ExprOf<'path'>): Term | null {
    const whole = this.of(expr.of)
    if (whole?.unit === 'length' && expr.member === 'days') {
      // Only where it is a number of whole days; else it is cut towards zero.
      const days = linearTimes(whole.linear, over(ONE, DAY))
      return this.encoding.arithmetic.isWhole(days)
        ? { linear: days, unit: 'number', given: whole.given }
        : null
    }
    if (whole?.unit === 'day' && expr.member === 'weekday') {
      const shifted = this.remainder(
        { ...whole, linear: linearSum(whole.linear, constantOf(rational(3))) },
        rational(7),
      )
      return { ...shifted, linear: linearSum(shifted.linear, constantOf(ONE)), given: whole.given }
    }
    return whole ? null : this.carried.reached(expr)
  }

  /** A comparison as a truth; null where a side is not linear. */
  compare(op: CompareOp, left: Expr, right: Expr): Truth | null {
    return this.compareLinear(op, left, right) ?? this.ages.compare(op, left, right)
  }

  private compareLinear(op: CompareOp, left: Expr, right: Expr): Truth | null {
    const [a, b] = [this.of(left), this.of(right)]
    if (!a || !b || a.unit !== b.unit) return null
    const gap = linearSum(a.linear, b.linear, rational(-1))
    const back = linearTimes(gap, rational(-1))
    const { arithmetic } = this.encoding
    const atMost = () => arithmetic.atMostZero(gap)
    const atLeast = () => arithmetic.atMostZero(back)
    switch (op) {
      case '<=':
        return this.ordered(a.given, b.given, atMost())
      case '>=':
        return this.ordered(a.given, b.given, atLeast())
      case '>':
        return this.ordered(a.given, b.given, -atMost())
      case '<':
        return this.ordered(a.given, b.given, -atLeast())
      default:
        return this.equal(op, a.given, b.given, this.encoding.and([atMost(), atLeast()]))
    }
  }

  ordered(a: Literal, b: Literal, holds: Literal): Truth {
    const { and } = this.encoding
    return { t: and([a, b, holds]), f: and([a, b, -holds]) }
  }

  /** Two blanks are equal, a blank and a value are not. */
  equal(op: '=' | '!=', a: Literal, b: Literal, holds: Literal): Truth {
    const { and, or } = this.encoding
    const same = or([and([a, b, holds]), and([-a, -b])])
    return op === '=' ? { t: same, f: -same } : { t: -same, f: same }
  }
}

const TEN_YEARS = 3_653
const UNITS: Partial<Record<string, Unit>> = {
  number: 'number',
  date: 'day',
  dateTime: 'second',
  time: 'clock',
}
const LIMITS: Partial<Record<Unit, readonly [number, number]>> = {
  day: [FIRST_DAY, LAST_DAY],
  second: [FIRST_DAY * 86_400, (LAST_DAY + 1) * 86_400 - 1],
  clock: [0, 86_399],
}

export const fromUnits = (n: number | null, unit: Unit, given: Literal): Term | null =>
  n === null ? null : constant(rational(n), unit, given)
function lengthOf(duration: Value, given: Literal): Term | null {
  return isDuration(duration) && duration.unit === 'seconds'
    ? constant(rational(duration.amount), 'length', given)
    : null
}
/** Whether a condition asks for today. */
export const usesToday = (expr: Expr): boolean =>
  [...nodesOf(expr)].some(n => n.kind === 'call' && n.name === 'today')
