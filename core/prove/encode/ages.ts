import {
  dayNumber,
  durationFrom,
  FIRST_DAY,
  isoFromDay,
  LAST_DAY,
  monthsBetween,
  moveDate,
  partOf,
} from '../../expressions/dates'
import type { CompareOp, Expr, ExprOf } from '../../expressions/tree'
import { constantOf, linearSum, type Linear } from '../solver/linear'
import type { Encoder, Truth } from './encoder'
import { ONE, compareRationals, rational, ZERO } from '../solver/rational'
import { FLIPPED } from '../model/rewritten'
import type { Literal } from '../solver/literal'
import { equalTruth, orderedTruth } from './term'

/** `years and months duration(born, on)`, or its `.years`: it has a value just where both dates have. */
export function isLengthBetween(expr: Expr): boolean {
  const inner = expr.kind === 'path' && expr.member === 'years' ? expr.of : expr
  return inner.kind === 'call' && inner.name === 'years and months duration'
}

/** Comparisons of ages, years and dates moved by months: not linear, but each only turns true as one date falls and another grows. */
export class Ages {
  constructor(private readonly encoder: Encoder) {}

  /** Ages and dates moved by months: tests that only turn true as one date falls and the other grows. */
  compare(op: CompareOp, left: Expr, right: Expr): Truth | null {
    const found = this.age(left, right)
    if (found) return this.steps(op, found)
    const turned = this.age(right, left)
    return turned ? this.steps(FLIPPED[op], turned) : null
  }

  /**
   * Two lengths of time up to the same date against each other: the longer one began earlier, and whatever began a whole step earlier is
   * longer. In between, an example has to show it.
   */
  compareLengths(op: CompareOp, left: GivenLength, right: GivenLength): Truth | null {
    const [a, b] = [this.lengthOf(left.expr), this.lengthOf(right.expr)]
    if (!a || !b || a.inYears !== b.inYears || a.to.at !== b.to.at || a.from.at === b.from.at) return null
    const [less, more] = [this.shorter(a, b), this.shorter(b, a)]
    this.encoder.solver.addClause([-less, -more])
    this.encoder.widen()
    const holds = { '<': less, '>': more, '<=': -more, '>=': -less }
    if (op !== '=' && op !== '!=') return orderedTruth(this.encoder, left.given, right.given, holds[op])
    return equalTruth(this.encoder, op, left.given, right.given, this.encoder.and([-less, -more]))
  }

  private readonly shorterOnes = new Map<string, Literal>()
  /** The literal “one length is shorter than the other”. */
  private shorter(a: Length, b: Length): Literal {
    const key = `${a.from.at} ${b.from.at} ${a.to.at} ${a.inYears}`
    const known = this.shorterOnes.get(key)
    if (known !== undefined) return known
    const { arithmetic, solver } = this.encoder
    const literal = solver.newVariable()
    const laterBy = (days: number) =>
      arithmetic.atMostZero(
        linearSum(
          linearSum(b.from.linear ?? constantOf(ZERO), a.from.linear ?? constantOf(ZERO), rational(-1)),
          constantOf(rational(days)),
        ),
      )
    const surely = laterBy(a.inYears ? MOST_OF_YEAR : MOST_OF_MONTH)
    solver.addClause([-literal, laterBy(1)])
    solver.addClause([literal, -surely])
    solver.prefer(surely)
    this.shorterOnes.set(key, literal)
    return literal
  }

  /** What a length of time between two dates is made of. */
  private lengthOf(expr: Expr): Length | null {
    const inYears = expr.kind === 'path' && expr.member === 'years'
    const inner = inYears ? expr.of : expr
    if (inner.kind !== 'call' || inner.name !== 'years and months duration') return null
    const [from, to] = inner.args.map(arg => this.date(arg))
    return from && to ? { from, to, inYears } : null
  }

  private steps(op: CompareOp, { reached, passed, left, right }: Age): Truth {
    switch (op) {
      case '>=':
        return orderedTruth(this.encoder, left, right, reached)
      case '>':
        return orderedTruth(this.encoder, left, right, passed)
      case '<':
        return orderedTruth(this.encoder, left, right, -reached)
      case '<=':
        return orderedTruth(this.encoder, left, right, -passed)
      default:
        return equalTruth(this.encoder, op, left, right, this.encoder.and([reached, -passed]))
    }
  }

  /** `years and months duration(born, on)`, its `.years`, a date’s `.year`, or a date moved by months, against something. */
  private age(left: Expr, right: Expr): Age | null {
    const inner = left.kind === 'path' && left.member === 'years' ? left.of : left
    if (inner.kind === 'call' && inner.name === 'years and months duration')
      return this.lengthBetween(inner, left !== inner, right)
    if (left.kind === 'path' && left.member === 'year' && right.kind === 'number')
      return this.yearOf(left.of, Number(right.value))
    return this.movedDate(left, right)
  }

  /** Months or full years between two dates, against a constant. */
  private lengthBetween({ args }: ExprOf<'call'>, inYears: boolean, right: Expr): Age | null {
    const [from, to] = args.map(arg => this.date(arg))
    const limit = inYears ? numberOf(right) : monthsOf(right)
    if (!from || !to || limit === null) return null
    const atLeast = (n: number): Literal => {
      // From one year on, years are twelve months each; around none, what is cut towards zero may be almost a year less.
      const [each, steps] = inYears && n < 1 ? [12, n] : [1, inYears ? n * 12 : n]
      const measure = each === 1 ? monthsFrom : yearsFrom
      return this.grown(`every ${each}`, steps, from, to, {
        test: (a, b) => measure(a, b) >= steps,
        whenTrue: shortest((steps > 0 ? steps : steps - 1) * each),
        whenFalse: longest(steps * each),
      })
    }
    return {
      reached: atLeast(Math.ceil(limit)),
      passed: atLeast(Math.floor(limit) + 1),
      left: this.encoder.and([from.given, to.given]),
      right: this.encoder.yes,
    }
  }

  /** The year of a date, against a constant. */
  private yearOf(date: Expr, year: number): Age | null {
    const to = this.date(date)
    if (!to) return null
    const { yes } = this.encoder
    const yearOf = (day: bigint) => partOf(isoFromDay(Number(day)), 'year') ?? 0
    const atLeast = (n: number) =>
      this.grown('year', n, { at: 0n, given: yes }, to, { test: (_, b) => yearOf(b) >= n })
    const [reached, passed] = [atLeast(Math.ceil(year)), atLeast(Math.floor(year) + 1)]
    return { reached, passed, left: to.given, right: yes }
  }

  /** `born + duration("P18Y")` against another date: it is at least that while the other is not after it, so the sides are turned. */
  private movedDate(left: Expr, right: Expr): Age | null {
    if (left.kind !== 'arithmetic' || (left.op !== '+' && left.op !== '-')) return null
    const [base, by] = [this.date(left.left), monthsOf(left.right)]
    const other = this.date(right)
    if (!base || by === null || !other) return null
    const amount = left.op === '+' ? by : -by
    const movedTo = (day: bigint) =>
      BigInt(
        dayNumber(moveDate(isoFromDay(Number(day)), { unit: 'months', amount }) ?? '') ??
          (amount > 0 ? LAST_DAY : FIRST_DAY),
      )
    // “moved is at least other”: true while other falls and base grows. Other lies before base by as much as base is moved, turned round.
    return {
      reached: this.grown(
        'moved',
        2 * amount,
        other,
        base,
        { test: (a, b) => movedTo(b) >= a, whenTrue: -longest(amount), whenFalse: -shortest(amount) - 1 },
        1,
      ),
      passed: this.grown(
        'moved',
        2 * amount - 1,
        other,
        base,
        { test: (a, b) => movedTo(b) > a, whenTrue: -longest(amount), whenFalse: -shortest(amount) },
        1,
      ),
      left: base.given,
      right: other.given,
    }
  }

  /** Tests of one kind between the same dates, by how much each asks for: the same one is made once, and whoever passes one passes those that ask for less. */
  private readonly ladders = new Map<string, { rung: number; literal: Literal }[]>()

  /**
   * The literal of a test that only turns true as the first date falls and the second grows.
   * @param rung how much it asks for
   * @param turned 1 where a higher rung is passed by whoever passes a lower one
   */
  private grown(
    kind: string,
    rung: number,
    first: DatePart,
    second: DatePart,
    step: Step,
    turned: 0 | 1 = 0,
  ): Literal {
    const { yes, solver } = this.encoder
    // No time lies between a date and itself, and a date moved by months lies on the same side of it, whichever it is.
    if (first.at === second.at) return step.test(SOME_DAY, SOME_DAY) ? yes : -yes
    const key = `${kind} ${first.at} ${typeof first.at} ${second.at} ${typeof second.at}`
    const ladder = this.ladders.get(key) ?? []
    this.ladders.set(key, ladder)
    const known = ladder.find(r => r.rung === rung)
    if (known) return known.literal
    const literal = this.monotone(first, second, step)
    ladder.push({ rung, literal })
    ladder.sort((a, b) => (turned === 1 ? b.rung - a.rung : a.rung - b.rung))
    const at = ladder.findIndex(r => r.rung === rung)
    const [less, more] = [ladder[at - 1], ladder[at + 1]]
    if (less) solver.addClause([-literal, less.literal])
    if (more) solver.addClause([-more.literal, literal])
    return literal
  }

  /** A new monotone test. What the second date is after the first, in days, bounds it at once. */
  private monotone(first: DatePart, second: DatePart, { test, whenTrue, whenFalse }: Step): Literal {
    const { arithmetic, solver } = this.encoder
    const gap = linearSum(second.linear ?? constantOf(ZERO), first.linear ?? constantOf(ZERO), rational(-1))
    const literal = solver.newVariable()
    const { yes } = this.encoder
    const far =
      whenTrue === undefined
        ? yes
        : arithmetic.atMostZero(linearSum(constantOf(rational(whenTrue)), gap, rational(-1)))
    const close =
      whenFalse === undefined
        ? yes
        : arithmetic.atMostZero(linearSum(gap, constantOf(rational(whenFalse)), rational(-1)))
    solver.addClause([-literal, far])
    solver.addClause([literal, close])
    arithmetic.monotone({
      literal,
      first: first.at,
      second: second.at,
      test,
      range: [BigInt(FIRST_DAY), BigInt(LAST_DAY)],
      surely: { true: -close, false: -far },
    })
    return literal
  }

  /** A date that is one variable or constant. */
  private date(expr: Expr): DatePart | null {
    const term = this.encoder.term(expr)
    if (term?.unit !== 'day') return null
    const [only, ...others] = term.linear.terms
    if (!only) return { at: term.linear.constant.n, given: term.given, linear: term.linear }
    return others.length === 0 && compareRationals(only[1], ONE) === 0 && term.linear.constant.n === 0n
      ? { at: only[0], given: term.given, linear: term.linear }
      : null
  }
}

/** Around none a length is cut towards zero from both sides, so a step there takes twice as long. */
const MOST_OF_YEAR = 2 * 366
const MOST_OF_MONTH = 2 * 31
/** A length of time with the literal that it has a value. */
interface GivenLength {
  expr: Expr
  given: Literal
}
interface Length {
  from: DatePart
  to: DatePart
  inYears: boolean
}
interface DatePart {
  at: number | bigint
  given: Literal
  linear?: Linear
}
/** A test, and how many days the second date is at least after the first when it is true, and at most when it is false. */
interface Step {
  test: (first: bigint, second: bigint) => boolean
  whenTrue?: number
  whenFalse?: number
}
/** Days that so many months surely have at least, and at most: a month has 30.436875 on average, and no span strays by four. */
const shortest = (months: number): number => Math.floor(months * 30.436875) - 4
const longest = (months: number): number => Math.ceil(months * 30.436875) + 4
/** Something that grows in steps: whether it has reached, or passed, what it is compared with; and when either side has a value. */
interface Age {
  reached: Literal
  passed: Literal
  left: Literal
  right: Literal
}

const SOME_DAY = 20_000n
const numberOf = (expr: Expr): number | null => (expr.kind === 'number' ? Number(expr.value) : null)

/** The months of a length of time that stands there. */
function monthsOf(expr: Expr): number | null {
  const text = durationTextIn(expr)
  const duration = text === null ? null : durationFrom(text)
  return duration?.unit === 'months' ? duration.amount : null
}

function durationTextIn(expr: Expr): string | null {
  if (expr.kind === 'duration') return expr.value
  const [text] = expr.kind === 'call' && expr.name === 'duration' ? expr.args : []
  return text?.kind === 'text' ? text.value : null
}

const between = (a: bigint, b: bigint) => monthsBetween(isoFromDay(Number(a)), isoFromDay(Number(b)))
const monthsFrom = (a: bigint, b: bigint): number => between(a, b)?.amount ?? 0
const yearsFrom = (a: bigint, b: bigint): number => partOf(between(a, b) ?? '', 'years') ?? 0
