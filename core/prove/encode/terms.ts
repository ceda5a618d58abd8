import { dayNumber, durationFrom, instant } from '../../expressions/dates'
import { nodesOf, type Expr, type ExprOf } from '../../expressions/tree'
import { nameOfEntry } from '../model/entryExpressions'
import { constantOf, linearSum, linearTimes } from '../solver/linear'
import type { Literal } from '../solver/literal'
import {
  fromDecimal,
  isWhole,
  ONE,
  compareRationals,
  dividedBy,
  rational,
  type Rational,
} from '../solver/rational'
import { ChosenNumbers } from './chosenNumbers'
import type { Encoder, Term, TermCase, Unit } from './encoder'
import { NumberFunctions } from './numberFunctions'
import { OpaqueNumbers } from './opaqueNumbers'
import { QuestionTerms } from './questionTerms'
import { TextLengths } from './textLengths'
import { constantTerm, DAY, isConstant, isDecimalDivisor, termFromDuration, termFromUnits } from './term'

/** Days of ten years. */
const TEN_YEARS = 3_653

/** Expressions over numbers and times as linear sums for the theory of arithmetic; null where one is not linear. */
export class Terms {
  private readonly built = new Map<Expr, Term | null>()
  /** Once a condition asks for it. */
  today: Term | null = null
  todayIndex: number | null = null
  readonly questions: QuestionTerms
  readonly chosen: ChosenNumbers
  private readonly functions: NumberFunctions
  /** Numbers that are no sums. */
  readonly opaque: OpaqueNumbers
  private readonly lengths: TextLengths

  constructor(private readonly encoder: Encoder) {
    this.functions = new NumberFunctions(encoder)
    this.questions = new QuestionTerms(encoder, this.functions)
    this.chosen = new ChosenNumbers(encoder)
    this.opaque = new OpaqueNumbers(encoder)
    this.lengths = new TextLengths(encoder, this.opaque)
  }

  of(expr: Expr): Term | null {
    const known = this.built.get(expr)
    if (known !== undefined) return known
    const made = this.build(expr)
    this.built.set(expr, made)
    return made
  }

  private build(expr: Expr): Term | null {
    const { yes } = this.encoder
    switch (expr.kind) {
      case 'number':
        return constantTerm(fromDecimal(expr.value), 'number', yes)
      case 'date':
        return termFromUnits(dayNumber(expr.value), 'day', yes)
      case 'dateTime':
        return termFromUnits(instant(expr.value), 'second', yes)
      case 'time':
        return termFromUnits(instant(expr.value), 'clock', yes)
      case 'duration':
        return termFromDuration(durationFrom(expr.value), yes)
      case 'name':
        return this.questions.of(expr.name)
      case 'negate':
        return this.scaled(expr.value, rational(-1))
      case 'arithmetic':
        return this.arithmetic(expr)
      case 'if':
        return this.choice(expr)
      case 'call':
        return this.call(expr)
      case 'path':
      case 'filter':
        return this.reached(expr)
      default:
        return null
    }
  }

  /** An answer of one entry or row, or what a path reaches. */
  private reached(expr: ExprOf<'path' | 'filter'>): Term | null {
    const one = nameOfEntry(expr, this.encoder.model.copies)
    if (one !== expr) return this.of(one)
    return expr.kind === 'path' ? this.path(expr) : null
  }

  private scaled(expr: Expr, by: Rational): Term | null {
    const term = this.of(expr)
    return term && isNumberOrLength(term) ? { ...term, linear: linearTimes(term.linear, by) } : null
  }

  private arithmetic(expr: ExprOf<'arithmetic'>): Term | null {
    const { op, left, right } = expr
    const [a, b] = [this.of(left), this.of(right)]
    if (!a || !b) return null
    const given = this.encoder.and([a.given, b.given])
    switch (op) {
      case '+':
        return this.sum(a, b, ONE, given)
      case '-':
        return this.sum(a, b, rational(-1), given)
      case '*':
        return product(a, b, given) ?? this.opaque.product(expr, a, b, given)
      case '/':
        return quotient(a, b, given) ?? this.opaque.quotient(expr, a, b, given)
      case '**':
        return null
    }
  }

  private sum(a: Term, b: Term, by: Rational, given: Literal): Term | null {
    if (a.unit === b.unit) return sumOfSame(a, b, by, given)
    if (b.unit === 'length') return moved(a, b, by, given)
    const isPlus = by.n > 0n
    return isPlus && a.unit === 'length' && b.unit !== 'number' ? moved(b, a, by, given) : null
  }

  /** `if … then a else b`: a number that equals the one or the other. */
  private choice({ test, then, else: otherwise }: ExprOf<'if'>): Term | null {
    const [a, b] = [this.orNull(then), this.orNull(otherwise)]
    const unit = a?.unit ?? b?.unit
    if (a === undefined || b === undefined || unit === undefined || (a && b && a.unit !== b.unit)) return null
    const { t } = this.encoder.truth(test)
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
  among(unit: Unit, cases: readonly TermCase[]): Term {
    const { arithmetic, solver, and, or } = this.encoder
    const given = or(cases.map(c => and([c.when, c.given])))
    const { index, linear } = arithmetic.variable(cases.every(c => arithmetic.isWhole(c.linear)) ? ONE : null)
    if (cases[0]) arithmetic.decidedBy(index, cases[0].when)
    const spans = cases.map(c => arithmetic.span(c.linear))
    const end = (at: 0 | 1) =>
      spans.some(s => s[at] === null)
        ? null
        : (spans
            .flatMap(s => s[at] ?? [])
            .sort(compareRationals)
            .at(at === 0 ? 0 : -1) ?? null)
    arithmetic.within(index, { literal: this.encoder.yes, low: end(0), high: end(1), strict: false })
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
    if (name === 'string length') return this.lengths.of(expr)
    const ofEntries = first ? this.encoder.aggregate(expr) : null
    if (ofEntries) return ofEntries
    if (name === 'count') return first?.kind === 'name' ? this.chosen.count(first.name) : null
    if (name === 'sum' && args.length === 1 && first?.kind === 'path') return this.chosen.sum(first)
    return this.functions.of(expr)
  }

  /** Today: any day from the one on which is proved, for ten years. */
  private day(): Term {
    if (this.today) return this.today
    const from = dayNumber(this.encoder.model.today) ?? 0
    const { index, linear } = this.encoder.arithmetic.variable(ONE, rational(from))
    this.encoder.arithmetic.within(index, {
      literal: this.encoder.yes,
      low: rational(from),
      high: rational(from + TEN_YEARS),
      strict: false,
    })
    this.todayIndex = index
    return (this.today = { linear, unit: 'day', given: this.encoder.yes })
  }

  /** Days of a length of time, the day of the week, or what a chosen row holds. */
  private path(expr: ExprOf<'path'>): Term | null {
    const whole = this.of(expr.of)
    if (whole?.unit === 'length' && expr.member === 'days') {
      // Only where it is a number of whole days; else it is cut towards zero.
      const days = linearTimes(whole.linear, dividedBy(ONE, DAY))
      return this.encoder.arithmetic.isWhole(days)
        ? { linear: days, unit: 'number', given: whole.given }
        : null
    }
    if (whole?.unit === 'day' && expr.member === 'weekday') {
      const shifted = this.functions.remainder(
        { ...whole, linear: linearSum(whole.linear, constantOf(rational(3))) },
        rational(7),
      )
      return { ...shifted, linear: linearSum(shifted.linear, constantOf(ONE)), given: whole.given }
    }
    return whole ? null : this.chosen.reached(expr)
  }
}

const isNumberOrLength = ({ unit }: Term): boolean => unit === 'number' || unit === 'length'

/** Two numbers or lengths of time together, or the length of time between two of another unit. */
function sumOfSame(a: Term, b: Term, by: Rational, given: Literal): Term | null {
  const linear = linearSum(a.linear, b.linear, by)
  if (isNumberOrLength(a)) return { linear, unit: a.unit, given }
  if (by.n > 0n) return null
  return { linear: linearTimes(linear, a.unit === 'day' ? DAY : ONE), unit: 'length', given }
}

/** A day or an instant moved by a length of time; a day only by whole ones. */
function moved(a: Term, by: Term, sign: Rational, given: Literal): Term | null {
  if (a.unit === 'second') return { linear: linearSum(a.linear, by.linear, sign), unit: 'second', given }
  if (a.unit !== 'day' || !isConstant(by)) return null
  const days = dividedBy(by.linear.constant, DAY)
  return isWhole(days) ? { linear: linearSum(a.linear, constantOf(days), sign), unit: 'day', given } : null
}

/** A number or length of time that is multiplied by a constant. Lengths are cut to whole seconds: only whole multiples are sure not to be. */
function product(a: Term, b: Term, given: Literal): Term | null {
  const [factor, other] = isConstant(a) ? [a, b] : [b, a]
  if (!isConstant(factor) || factor.unit !== 'number' || !isNumberOrLength(other)) return null
  if (other.unit === 'length' && !isWhole(factor.linear.constant)) return null
  return { linear: linearTimes(other.linear, factor.linear.constant), unit: other.unit, given }
}

function quotient(a: Term, b: Term, given: Literal): Term | null {
  const divisor = b.linear.constant
  if (!isConstant(b)) return null
  if (a.unit === 'length' && b.unit === 'length') return quotientOfLengths(a, divisor, given)
  if (a.unit !== 'number' || b.unit !== 'number') return null
  if (divisor.n === 0n || !isDecimalDivisor(divisor)) return null
  return { linear: linearTimes(a.linear, dividedBy(ONE, divisor)), unit: 'number', given }
}

/** A length of time in units of another: exact in decimals where the other is a number of days without other factors than 2 and 5. */
function quotientOfLengths(a: Term, divisor: Rational, given: Literal): Term | null {
  if (divisor.n === 0n || !isDecimalDivisor(dividedBy(divisor, DAY))) return null
  return { linear: linearTimes(a.linear, dividedBy(ONE, divisor)), unit: 'number', given }
}

/** Whether a condition asks for today. */
export const usesToday = (expr: Expr): boolean =>
  nodesOf(expr).some(n => n.kind === 'call' && n.name === 'today')
