import { dayNumber, durationFrom, FIRST_DAY, LAST_DAY } from '../../expressions/dates'
import { isNumber } from '../../expressions/decimal'
import type { CompareOp, Expr, ExprOf, TestNode } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import type { Plan, PlannedQuestion } from '../../fill/planned'
import type { Question, QuestionOf } from '../../form/questions'

/**
 * What an expression can come to when one answer is known and all others are anything: by intervals (Moore, "Interval Analysis", 1966), so
 * wider than what it does come to, never narrower, but for the far ends of numbers and of the calendar, which hold nobody up.
 */
type Estimate = Stretch | Truths | { is: 'exact'; value: Value } | { is: 'anything' }

/** Between two numbers (dates count days), or blank. */
interface Stretch {
  is: 'stretch'
  low: number
  high: number
  mayBeBlank: boolean
}
/** What a condition may come to. */
interface Truths {
  is: 'truths'
  t: boolean
  f: boolean
}

const ANYTHING = { is: 'anything' } as const
const EITHER: Truths = { is: 'truths', t: true, f: true }
const truthOf = (value: boolean): Truths => ({ is: 'truths', t: value, f: !value })

/** How far numbers without limits are taken to go; and candidates that lie beyond all of them. */
const FAR = 1e12
export const BEYOND = 1e13
const CENTURY = 36_525
const TODAYS = [dayNumber('2020-01-01') ?? 0, dayNumber('2100-01-01') ?? 0] as const
/** Calculated values that stand for each other, at most. */
const DEPTH = 6

/** Whether a condition is never false when a question has a value, whatever else is answered. */
export function neverFails(plan: Plan, expr: Expr, known: PlannedQuestion, value: Value): boolean {
  const found = new Estimator(plan, known, value).of(expr, DEPTH)
  return found.is === 'truths' && !found.f
}

class Estimator {
  private readonly own: Estimate

  constructor(
    private readonly plan: Plan,
    private readonly known: PlannedQuestion,
    value: Value,
  ) {
    this.own = exactly(value)
  }

  of(expr: Expr, depth: number): Estimate {
    switch (expr.kind) {
      case 'number':
      case 'text':
      case 'boolean':
      case 'date':
        return exactly(expr.value)
      case 'null':
        return exactly(null)
      case 'name':
        return this.named(expr.name, depth)
      case 'if':
        return this.either(expr, depth)
      case 'call':
        return this.called(expr, depth)
      case 'arithmetic':
        return calculated(expr, this.of(expr.left, depth), this.of(expr.right, depth), expr.right)
      default:
        return this.condition(expr, depth)
    }
  }

  private condition(expr: Expr, depth: number): Estimate {
    switch (expr.kind) {
      case 'and':
        return this.joined(expr.parts, depth, false)
      case 'or':
        return this.joined(expr.parts, depth, true)
      case 'not':
        return turned(this.of(expr.value, depth))
      case 'compare':
        return compared(expr.op, this.of(expr.left, depth), this.of(expr.right, depth))
      case 'between':
        return both(
          compared('>=', this.of(expr.value, depth), this.of(expr.low, depth)),
          compared('<=', this.of(expr.value, depth), this.of(expr.high, depth)),
        )
      case 'in':
        return this.amongTests(expr, depth)
      default:
        return ANYTHING
    }
  }

  private named(name: string, depth: number): Estimate {
    if (name === this.known.place.code) return this.own
    const question = this.plan.byCode.get(name)
    if (!question || depth === 0) return ANYTHING
    const { node } = question.place
    if (question.value)
      return mayBeBlank(question.value.expr ? this.of(question.value.expr, depth - 1) : ANYTHING)
    if (node.type === 'date')
      return stretch(dayOr(node.min, FIRST_DAY + CENTURY), dayOr(node.max, LAST_DAY - CENTURY), true)
    if (isNumeric(node)) return stretch(node.min ?? -FAR, node.max ?? FAR, true)
    return node.type === 'yesNo' ? EITHER : ANYTHING
  }

  private called({ name, args }: ExprOf<'call'>, depth: number): Estimate {
    if (name === 'today') return stretch(...TODAYS, false)
    if (name === 'any' || name === 'all') return this.joined(args, depth, name === 'any')
    return ANYTHING
  }

  private either({ test, then, else: otherwise }: ExprOf<'if'>, depth: number): Estimate {
    const found = this.of(test, depth)
    const [a, b] = [this.of(then, depth), this.of(otherwise, depth)]
    // What is unknown takes the other way, as what is false does.
    if (found.is === 'truths' && !found.f && this.isKnown(test, depth)) return a
    if (found.is === 'truths' && !found.t) return b
    return eitherOf(withoutBlank(test, then, a), withoutBlank(test, otherwise, b))
  }

  /** Whether a condition is true or false in any case: an equality always is, a comparison of order where neither side may be blank. */
  private isKnown(expr: Expr, depth: number): boolean {
    if (expr.kind === 'boolean') return true
    if (expr.kind === 'not') return this.isKnown(expr.value, depth)
    if (expr.kind === 'and' || expr.kind === 'or') return expr.parts.every(part => this.isKnown(part, depth))
    if (expr.kind !== 'compare') return false
    if (expr.op === '=' || expr.op === '!=') return true
    return [expr.left, expr.right].every(side => {
      const found = this.of(side, depth)
      return found.is === 'stretch' && !found.mayBeBlank
    })
  }

  /** Of an `or` one true part decides, of an `and` one false part. */
  private joined(parts: readonly Expr[], depth: number, decisive: boolean): Truths {
    const found = parts.map(part => asTruths(this.of(part, depth)))
    const some = (can: (t: Truths) => boolean) => found.some(can)
    const every = (can: (t: Truths) => boolean) => found.every(can)
    return decisive
      ? { is: 'truths', t: some(p => p.t), f: every(p => p.f) }
      : { is: 'truths', t: every(p => p.t), f: some(p => p.f) }
  }

  private amongTests({ value, tests }: ExprOf<'in'>, depth: number): Truths {
    const given = this.of(value, depth)
    const found = tests.map(test => asTruths(this.tested(test, given, depth)))
    return { is: 'truths', t: found.some(p => p.t), f: found.every(p => p.f) }
  }

  private tested(test: TestNode, given: Estimate, depth: number): Estimate {
    if (test.kind === 'unaryTest') return compared(test.op, given, this.of(test.value, depth))
    if (test.kind === 'list') return ANYTHING
    if (test.kind !== 'range') return compared('=', given, this.of(test, depth))
    return both(
      compared(test.lowOpen ? '>' : '>=', given, this.of(test.low, depth)),
      compared(test.highOpen ? '<' : '<=', given, this.of(test.high, depth)),
    )
  }
}

const stretch = (low: number, high: number, blank: boolean): Stretch => ({
  is: 'stretch',
  low,
  high,
  mayBeBlank: blank,
})
const dayOr = (iso: string | undefined, otherwise: number) =>
  iso === undefined ? otherwise : (dayNumber(iso) ?? otherwise)

function exactly(value: Value): Estimate {
  if (isNumber(value)) return stretch(Number(value), Number(value), false)
  if (typeof value === 'boolean') return truthOf(value)
  const day = typeof value === 'string' ? dayNumber(value) : null
  return day === null ? { is: 'exact', value } : stretch(day, day, false)
}

const asTruths = (found: Estimate): Truths => (found.is === 'truths' ? found : EITHER)
const turned = (found: Estimate): Truths => {
  const { t, f } = asTruths(found)
  return { is: 'truths', t: f, f: t }
}
const both = (a: Truths, b: Truths): Truths => ({ is: 'truths', t: a.t && b.t, f: a.f || b.f })
const mayBeBlank = (found: Estimate): Estimate =>
  found.is === 'stretch' ? { ...found, mayBeBlank: true } : found

/** In `if x = null then 0 else x` the value that stands there is not blank. */
function withoutBlank(test: Expr, value: Expr, found: Estimate): Estimate {
  const asks =
    test.kind === 'compare' && test.right.kind === 'null' && test.left.kind === 'name' ? test.left.name : null
  const isThat = value.kind === 'name' && value.name === asks
  return isThat && found.is === 'stretch' ? { ...found, mayBeBlank: false } : found
}

function eitherOf(a: Estimate, b: Estimate): Estimate {
  if (a.is === 'truths' && b.is === 'truths') return { is: 'truths', t: a.t || b.t, f: a.f || b.f }
  if (a.is !== 'stretch' || b.is !== 'stretch') return ANYTHING
  return stretch(Math.min(a.low, b.low), Math.max(a.high, b.high), a.mayBeBlank || b.mayBeBlank)
}

function calculated({ op }: ExprOf<'arithmetic'>, left: Estimate, right: Estimate, by: Expr): Estimate {
  const other = daysOf(by) ?? right
  if (left.is !== 'stretch' || other.is !== 'stretch') return ANYTHING
  const blank = left.mayBeBlank || other.mayBeBlank
  if (op === '+') return stretch(left.low + other.low, left.high + other.high, blank)
  if (op === '-') return stretch(left.low - other.high, left.high - other.low, blank)
  if (op !== '*') return ANYTHING
  const corners = [left.low, left.high].flatMap(a => [a * other.low, a * other.high])
  return stretch(Math.min(...corners), Math.max(...corners), blank)
}

/** A length of time that stands there, in days; of months the fewest and the most. */
function daysOf(expr: Expr): Stretch | null {
  const [first] = expr.kind === 'call' && expr.name === 'duration' ? expr.args : [expr]
  const text = first?.kind === 'text' || first?.kind === 'duration' ? durationFrom(first.value) : null
  if (!text) return null
  if (text.unit !== 'months') return stretch(text.amount / 86_400, text.amount / 86_400, false)
  return stretch(Math.floor(text.amount * 30.4) - 4, Math.ceil(text.amount * 30.5) + 4, false)
}

/** A comparison with something blank is unknown, so not false; but blank is a value to `=` and `!=`. */
function compared(op: CompareOp, left: Estimate, right: Estimate): Truths {
  if (op === '!=') return turned(compared('=', left, right))
  if (op === '=') return isApart(left, right) ? truthOf(false) : equal(left, right)
  if (left.is !== 'stretch' || right.is !== 'stretch') return EITHER
  if (op === '>' || op === '>=') return compared(op === '>' ? '<' : '<=', right, left)
  const isNeverMore = op === '<' ? left.high < right.low : left.high <= right.low
  const isNeverLess = op === '<' ? left.low >= right.high : left.low > right.high
  return { is: 'truths', t: !isNeverLess, f: !isNeverMore }
}

function equal(left: Estimate, right: Estimate): Truths {
  const isSame =
    left.is === 'exact' && right.is === 'exact' ? left.value === right.value : isPoint(left) && isPoint(right)
  return isSame ? truthOf(true) : EITHER
}

const isPoint = (found: Estimate) => found.is === 'stretch' && found.low === found.high && !found.mayBeBlank

/** Whether two never are the same. */
function isApart(left: Estimate, right: Estimate): boolean {
  if (left.is === 'exact' && right.is === 'exact') return left.value !== right.value
  if (left.is === 'stretch' && right.is === 'stretch')
    return !(left.mayBeBlank && right.mayBeBlank) && (left.high < right.low || right.high < left.low)
  const [one, other] = left.is === 'stretch' ? [left, right] : [right, left]
  return one.is === 'stretch' && !one.mayBeBlank && other.is === 'exact' && other.value === null
}

/** Whether answers are numbers with limits; an amount in one of several currencies is not one number. */
const isNumeric = (node: Question): node is QuestionOf<'integer' | 'decimal' | 'money' | 'scale'> =>
  node.type === 'money' ? node.currencies === undefined : ['integer', 'decimal', 'scale'].includes(node.type)
