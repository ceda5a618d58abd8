import { handleByKind, type ByKind, type CompareOp, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { nameOfEntry } from '../model/entryExpressions'
import { FLIPPED, HERE, testExpression, twoSided } from '../model/rewritten'
import type { Literal } from '../solver/literal'
import { ChoiceTests } from './choiceTests'
import { Comparisons } from './comparisons'
import { isLengthBetween } from './ages'
import type { Encoder, Truth } from './encoder'
import type { EntryTests } from './entryTests'
import { OpenTests } from './openTests'

/**
 * Conditions as clauses. Truth is encoded by polarity, so that three-valued logic is exact.
 *
 * What is not exact is a test whose outcome the classes don't decide (products of answers, functions of texts that make texts):
 * it becomes a free variable. A contradiction then still holds for all answers; an example must be replayed.
 */
export class Truths {
  private readonly known = new Map<Expr, { truth: Truth; open: boolean }>()
  private readonly choices: ChoiceTests
  private readonly comparisons: Comparisons
  private readonly tests: OpenTests

  constructor(
    private readonly encoder: Encoder,
    private readonly entries: EntryTests,
  ) {
    this.choices = new ChoiceTests(encoder)
    this.comparisons = new Comparisons(encoder)
    this.tests = new OpenTests(encoder)
  }

  /** The truth of a condition. */
  of(expr: Expr): Truth {
    const known = this.known.get(expr)
    if (known) {
      if (known.open) this.encoder.widen()
      return known.truth
    }
    const { result, isOpen } = this.encoder.watched(() => this.build(expr))
    this.known.set(expr, { truth: result, open: isOpen })
    return result
  }

  private build = (expr: Expr): Truth => handleByKind(this.byKind, expr)

  private triedOrOpen = (expr: Expr): Truth => this.tests.tabulated(expr) ?? this.tests.open(expr)

  private readonly byKind: ByKind<Truth> = {
    boolean: e => this.certain(e.value ? this.encoder.yes : -this.encoder.yes),
    null: () => ({ t: -this.encoder.yes, f: -this.encoder.yes }),
    name: e => this.yesNo(e),
    and: e => this.junction(e),
    or: e => this.junction(e),
    not: e => {
      const { t, f } = this.of(e.value)
      return { t: f, f: t }
    },
    if: e => this.conditional(e),
    between: e => this.of(twoSided(e.value, { op: '>=', value: e.low }, { op: '<=', value: e.high })),
    in: e => this.membership(e),
    compare: e => this.compare(e),
    call: e => this.call(e),
    quantified: e => this.entries.quantified(e) ?? this.triedOrOpen(e),
    path: e => this.reached(e),
    filter: e => this.reached(e),
    // No conditions: what type-checks has none of these here.
    number: this.triedOrOpen,
    text: this.triedOrOpen,
    date: this.triedOrOpen,
    time: this.triedOrOpen,
    dateTime: this.triedOrOpen,
    duration: this.triedOrOpen,
    list: this.triedOrOpen,
    arithmetic: this.triedOrOpen,
    negate: this.triedOrOpen,
  }

  /** An answer of one entry or row by its name, or what a path reaches. */
  private reached(expr: ExprOf<'path' | 'filter'>): Truth {
    const one = nameOfEntry(expr, this.encoder.model.copies)
    return one === expr ? this.triedOrOpen(expr) : this.of(one)
  }

  private certain = (t: Literal): Truth => ({ t, f: -t })

  /** A question that is answered with yes or no, or calculated. */
  private yesNo(expr: ExprOf<'name'>): Truth {
    const calculated = this.calculated(expr.name)
    if (calculated) return calculated
    if (this.isOpaque(expr.name)) return this.tests.open(expr)
    return { t: this.equals(expr.name, true), f: this.equals(expr.name, false) }
  }

  /** A calculated yes or no: what its condition is, while it is in play. */
  private calculated(code: string): Truth | null {
    const expr = this.encoder.model.stepOf(code)?.value?.expr
    if (!expr || !this.isCondition(expr) || this.encoder.model.circular.has(code)) return null
    const { blank } = this.encoder.variable(code)
    const { t, f } = this.of(expr)
    return { t: this.encoder.and([t, -blank]), f: this.encoder.and([f, -blank]) }
  }

  private junction({ kind, parts: written }: ExprOf<'and' | 'or'>): Truth {
    const { and, or } = this.encoder
    const parts = written.map(part => this.of(part))
    const [all, some] = kind === 'and' ? [and, or] : [or, and]
    return { t: all(parts.map(p => p.t)), f: some(parts.map(p => p.f)) }
  }

  private conditional(expr: ExprOf<'if'>): Truth {
    const [test, then, otherwise] = [this.of(expr.test), this.of(expr.then), this.of(expr.else)]
    return {
      t: this.either(test.t, then.t, otherwise.t),
      f: this.either(test.t, then.f, otherwise.f),
    }
  }

  /** The one literal while a test holds, else the other. */
  private either(test: Literal, then: Literal, otherwise: Literal): Literal {
    const { and, or } = this.encoder
    return or([and([test, then]), and([-test, otherwise])])
  }

  private call(expr: ExprOf<'call'>): Truth {
    const contained = expr.name === 'list contains' ? this.choices.contains(expr) : null
    return contained ?? this.entries.call(expr) ?? this.overListed(expr) ?? this.triedOrOpen(expr)
  }

  /** `any` or `all` of conditions that are written out: as “or” and “and”, unknown where that is. */
  private overListed({ name, args }: ExprOf<'call'>): Truth | null {
    const [only] = args
    const items = args.length === 1 && only?.kind === 'list' ? only.items : args
    if ((name !== 'any' && name !== 'all') || !items.every(item => this.isCondition(item))) return null
    const { and, or } = this.encoder
    const parts = items.map(item => this.of(item))
    const [all, some] = name === 'all' ? [and, or] : [or, and]
    return { t: all(parts.map(p => p.t)), f: some(parts.map(p => p.f)) }
  }

  private isOpaque = (code: string): boolean => this.encoder.variable(code).domain.opaque

  private equals = (code: string, value: Value): Literal =>
    this.encoder.variable(code).classes.find(c => c.value === value)?.literal ?? -this.encoder.yes

  private membership(expr: ExprOf<'in'>): Truth {
    const [only] = expr.tests
    if (expr.bare && only && only.kind !== 'range' && only.kind !== 'unaryTest' && !isConstant(only)) {
      return this.triedOrOpen(expr)
    }
    const parts = expr.tests.map(test => this.of(testExpression(expr.value, test)))
    return { t: this.encoder.or(parts.map(p => p.t)), f: this.encoder.and(parts.map(p => p.f)) }
  }

  private compare(expr: ExprOf<'compare'>): Truth {
    const { copies } = this.encoder.model
    const { op } = expr
    const [left, right] = [nameOfEntry(expr.left, copies), nameOfEntry(expr.right, copies)]
    if (left !== expr.left || right !== expr.right) return this.of({ ...expr, left, right })
    if (left.kind !== 'name' && right.kind === 'name')
      return this.of({ ...expr, op: FLIPPED[op], left: right, right: left })
    return (
      this.ofQuestion(expr) ??
      this.choices.ofTwo(expr) ??
      this.tests.tabulated(expr) ??
      this.byCases(expr) ??
      this.choices.againstReached(expr) ??
      this.tests.pieceIn(expr) ??
      this.comparisons.of(op, left, right) ??
      this.ofCalculated(expr) ??
      this.booleans(expr) ??
      this.tests.open(expr)
    )
  }

  /** A number that is calculated otherwise than by sums, such as an age: what it is calculated by, compared in its place. */
  private ofCalculated(expr: ExprOf<'compare'>): Truth | null {
    const { op, left, right } = expr
    const made = left.kind === 'name' ? this.lengthOf(left.name) : null
    if (left.kind !== 'name' || made === null) {
      const isRight = right.kind === 'name' && this.lengthOf(right.name) !== null
      return isRight ? this.ofCalculated({ ...expr, op: FLIPPED[op], left: right, right: left }) : null
    }
    const other = right.kind === 'name' ? this.lengthOf(right.name) : null
    if (right.kind === 'name' && other) {
      const givenAs = (code: string, length: Expr) => ({
        expr: length,
        given: -this.encoder.variable(code).blank,
      })
      return this.comparisons.ofLengths(op, givenAs(left.name, made), givenAs(right.name, other))
    }
    const there = this.comparisons.of(op, made, right)
    if (there === null) return null
    const gone = this.of({ ...expr, left: { kind: 'null', ...HERE } })
    const { blank } = this.encoder.variable(left.name)
    return { t: this.either(-blank, there.t, gone.t), f: this.either(-blank, there.f, gone.f) }
  }

  /** The length between two dates that a question is calculated as, unrounded. */
  private lengthOf(code: string): Expr | null {
    const { model } = this.encoder
    const node = model.stepOf(code)?.place.node
    const value = model.circular.has(code) ? null : model.stepOf(code)?.value?.expr
    const isRounded = node?.type === 'value' && (node.decimals !== undefined || node.currency !== undefined)
    return value && !isRounded && isLengthBetween(value) ? value : null
  }

  /** A question against blank, or against a constant that its classes tell. */
  private ofQuestion(expr: ExprOf<'compare'>): Truth | null {
    const { op, left, right } = expr
    if (left.kind !== 'name') return null
    if (right.kind === 'null') return this.againstBlank(left.name, op)
    if (!isConstant(right)) return null
    const { domain } = this.encoder.variable(left.name)
    if (domain.opaque || domain.many) return null
    return this.choices.againstConstant(left.name, op, right, expr)
  }

  private againstBlank(code: string, op: CompareOp): Truth {
    const { blank } = this.encoder.variable(code)
    if (op === '=' || op === '!=') return this.certain(op === '=' ? blank : -blank)
    return { t: -this.encoder.yes, f: -this.encoder.yes }
  }

  /** A text that is calculated by cases (`if … then "tall" else "short"`), or a question that is, against something: case by case. */
  private byCases(expr: ExprOf<'compare'>): Truth | null {
    const { op, left, right } = expr
    const value = this.casesOf(left)
    if (value === null) {
      if (this.casesOf(right) === null) return null
      return this.byCases({ ...expr, op: FLIPPED[op], left: right, right: left })
    }
    if (left.kind === 'if') {
      const test = this.of(left.test).t
      const [a, b] = [
        this.of({ ...expr, left: left.then, right }),
        this.of({ ...expr, left: left.else, right }),
      ]
      return { t: this.either(test, a.t, b.t), f: this.either(test, a.f, b.f) }
    }
    if (left.kind !== 'name') return null
    // Not in play it is blank.
    const [there, gone] = [
      this.of({ ...expr, left: value }),
      this.of({ ...expr, left: { kind: 'null', ...HERE } }),
    ]
    const { blank } = this.encoder.variable(left.name)
    return { t: this.either(-blank, there.t, gone.t), f: this.either(-blank, there.f, gone.f) }
  }

  /** What a text or code is calculated by; null for numbers and times, which are sums, and for anything that is answered. */
  private casesOf(expr: Expr): Expr | null {
    if (expr.kind === 'if') return this.isText(expr) ? expr : null
    const { model } = this.encoder
    if (expr.kind !== 'name' || model.circular.has(expr.name)) return null
    const value = model.stepOf(expr.name)?.value?.expr
    return value && this.isText(value) ? value : null
  }

  private isText(expr: Expr): boolean {
    if (expr.kind === 'if') return this.isText(expr.then) && this.isText(expr.else)
    if (expr.kind === 'name') return TEXTS.has(this.encoder.model.copies.typeOf(expr.name).kind)
    return expr.kind === 'text' || expr.kind === 'null'
  }

  /** Equality of two conditions: both true, both false, or both unknown. */
  private booleans({ op, left, right }: ExprOf<'compare'>): Truth | null {
    const isCondition = (e: Expr): boolean => this.isCondition(e)
    if (!isCondition(left) || !isCondition(right) || (op !== '=' && op !== '!=')) return null
    const [a, b] = [this.of(left), this.of(right)]
    const same = this.encoder.or([
      this.encoder.and([a.t, b.t]),
      this.encoder.and([a.f, b.f]),
      this.encoder.and([-a.t, -a.f, -b.t, -b.f]),
    ])
    return this.certain(op === '=' ? same : -same)
  }

  /** Whether an expression gives yes or no, and is a condition here. */
  isCondition(expr: Expr): boolean {
    if (expr.kind === 'if') return this.isCondition(expr.then) && this.isCondition(expr.else)
    if (expr.kind === 'call') return TESTS.has(expr.name)
    if (expr.kind !== 'name') return CONDITIONS.has(expr.kind)
    const isBoolean = this.encoder.model.copies.typeOf(expr.name).kind === 'boolean'
    return isBoolean && (!this.isOpaque(expr.name) || this.calculated(expr.name) !== null)
  }
}

/** The functions that give yes or no. */
const TESTS: ReadonlySet<string> = new Set([
  'list contains',
  'contains',
  'starts with',
  'ends with',
  'matches',
  'all',
  'any',
])
const TEXTS: ReadonlySet<string> = new Set(['text', 'code'])
/** The kinds of expressions that are conditions by themselves. */
const CONDITIONS: ReadonlySet<Expr['kind']> = new Set([
  'boolean',
  'and',
  'or',
  'not',
  'compare',
  'in',
  'between',
  'quantified',
])

const CONSTANTS: ReadonlySet<Expr['kind']> = new Set([
  'number',
  'text',
  'boolean',
  'date',
  'time',
  'dateTime',
])
const isConstant = (expr: Expr) => CONSTANTS.has(expr.kind)
