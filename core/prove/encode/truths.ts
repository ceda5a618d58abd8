import { compile } from '../../expressions/compile'
import { print } from '../../expressions/print'
import { namesIn, type CompareOp, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { valueKey } from '../../lists/listIndex'
import { literalOf } from '../../parties/literal'
import type { Encoding, Truth, Variable } from './encoding'
import { baseOf, single } from '../model/entries'
import type { Entered } from './entryTests'
import type { Model } from '../model/model'
import { FLIPPED, HERE, isStrict, replaced, testExpression, twoSided } from '../model/rewritten'
import type { Literal } from '../solver/literal'
import { usesToday } from './terms'
import { isTextTest } from '../model/textClasses'

/**
 * Conditions as clauses. Truth is encoded by polarity, so that three-valued logic is exact.
 *
 * What is not exact is a test whose outcome the classes don't decide (products of answers, functions of texts that make texts):
 * it becomes a free variable. A contradiction then still holds for all answers; an example must be replayed.
 */
export class Truths {
  private readonly known = new Map<Expr, { truth: Truth; open: boolean }>()
  private readonly entered: Entered

  constructor(
    private readonly encoding: Encoding,
    private readonly model: Model,
  ) {
    this.entered = encoding.entered
  }

  /** The truth of a condition. */
  of(expr: Expr): Truth {
    const known = this.known.get(expr)
    if (known) {
      if (known.open) this.encoding.widen()
      return known.truth
    }
    const { result, isOpen } = this.encoding.watched(() => this.build(expr))
    this.known.set(expr, { truth: result, open: isOpen })
    return result
  }

  private build(expr: Expr): Truth {
    switch (expr.kind) {
      case 'boolean':
        return expr.value ? this.always() : this.never()
      case 'null':
        return { t: -this.encoding.yes, f: -this.encoding.yes }
      case 'name':
        return (
          this.calculated(expr.name) ??
          (this.isOpaque(expr.name)
            ? this.open(expr)
            : { t: this.equals(expr.name, true), f: this.equals(expr.name, false) })
        )
      case 'and':
      case 'or': {
        const parts = expr.parts.map(part => this.of(part))
        return expr.kind === 'and'
          ? { t: this.encoding.and(parts.map(p => p.t)), f: this.encoding.or(parts.map(p => p.f)) }
          : { t: this.encoding.or(parts.map(p => p.t)), f: this.encoding.and(parts.map(p => p.f)) }
      }
      case 'not': {
        const { t, f } = this.of(expr.value)
        return { t: f, f: t }
      }
      case 'if': {
        const [test, then, otherwise] = [this.of(expr.test), this.of(expr.then), this.of(expr.else)]
        const choose = (a: Literal, b: Literal) =>
          this.encoding.or([this.encoding.and([test.t, a]), this.encoding.and([-test.t, b])])
        return { t: choose(then.t, otherwise.t), f: choose(then.f, otherwise.f) }
      }
      case 'between':
        return this.of(twoSided(expr.value, { op: '>=', value: expr.low }, { op: '<=', value: expr.high }))
      case 'in':
        return this.membership(expr)
      case 'compare':
        return this.compare(expr)
      case 'call':
        return (
          (expr.name === 'list contains' ? this.contains(expr) : null) ??
          this.entered.call(expr) ??
          this.tabulated(expr) ??
          this.open(expr)
        )
      case 'quantified':
        return this.entered.quantified(expr) ?? this.tabulated(expr) ?? this.open(expr)
      case 'path':
      case 'filter': {
        const one = single(expr, this.model.copies)
        return one === expr ? (this.tabulated(expr) ?? this.open(expr)) : this.of(one)
      }
      default:
        return this.tabulated(expr) ?? this.open(expr)
    }
  }

  /** A calculated yes or no: what its condition is, while it is in play. */
  private calculated(code: string): Truth | null {
    const expr = this.model.stepOf(code)?.value?.expr
    if (!expr || !this.isCondition(expr) || this.model.circular.has(code)) return null
    const { blank } = this.encoding.variable(code)
    const { t, f } = this.of(expr)
    return { t: this.encoding.and([t, -blank]), f: this.encoding.and([f, -blank]) }
  }

  private always = (): Truth => ({ t: this.encoding.yes, f: -this.encoding.yes })
  private never = (): Truth => ({ t: -this.encoding.yes, f: this.encoding.yes })
  private certain = (t: Literal): Truth => ({ t, f: -t })

  private isOpaque = (code: string): boolean => this.encoding.variable(code).domain.opaque

  /** `list contains(works, "welding")`: whether a multiple choice includes a code; unknown when nothing is chosen. */
  private contains({ args: [list, code] }: ExprOf<'call'>): Truth | null {
    if (list?.kind !== 'name' || code?.kind !== 'text') return null
    const { blank, classes, domain } = this.encoding.variable(list.name)
    if (!domain.many || domain.opaque) return null
    const literal = classes.find(c => c.value === code.value)?.literal ?? -this.encoding.yes
    return { t: literal, f: this.encoding.and([-literal, -blank]) }
  }

  private equals = (code: string, value: Value): Literal =>
    this.encoding.variable(code).classes.find(c => c.value === value)?.literal ?? -this.encoding.yes

  private membership(expr: ExprOf<'in'>): Truth {
    const [only] = expr.tests
    if (expr.bare && only && only.kind !== 'range' && only.kind !== 'unaryTest' && !isConstant(only)) {
      return this.tabulated(expr) ?? this.open(expr)
    }
    const parts = expr.tests.map(test => this.of(testExpression(expr.value, test)))
    return { t: this.encoding.or(parts.map(p => p.t)), f: this.encoding.and(parts.map(p => p.f)) }
  }

  private compare(expr: ExprOf<'compare'>): Truth {
    const { op } = expr
    const [left, right] = [single(expr.left, this.model.copies), single(expr.right, this.model.copies)]
    if (left !== expr.left || right !== expr.right) return this.of({ ...expr, left, right })
    if (left.kind !== 'name' && right.kind === 'name')
      return this.of({ ...expr, op: FLIPPED[op], left: right, right: left })
    if (left.kind === 'name' && right.kind === 'null') {
      const blank = this.encoding.variable(left.name).blank
      if (op === '=' || op === '!=') return this.certain(op === '=' ? blank : -blank)
      return { t: -this.encoding.yes, f: -this.encoding.yes }
    }
    if (
      left.kind === 'name' &&
      isConstant(right) &&
      !this.isOpaque(left.name) &&
      !this.encoding.variable(left.name).domain.many
    )
      return this.againstConstant(left.name, op, right, expr)
    return (
      this.tabulated(expr) ??
      this.byCases(expr) ??
      this.againstReached(expr) ??
      this.encoding.terms.compare(op, left, right) ??
      this.booleans(expr) ??
      this.open(expr)
    )
  }

  /** A text that is calculated by cases (`if … then "tall" else "short"`), or a question that is, against something: case by case. */
  private byCases(expr: ExprOf<'compare'>): Truth | null {
    const { op, left, right } = expr
    if (this.casesOf(left) === null)
      return this.casesOf(right) === null
        ? null
        : this.byCases({ ...expr, op: FLIPPED[op], left: right, right: left })
    const { and, or } = this.encoding
    if (left.kind === 'if') {
      const test = this.of(left.test).t
      const [a, b] = [left.then, left.else].map(side => this.of({ ...expr, left: side, right }))
      const choose = (x: Literal | undefined, y: Literal | undefined) =>
        or([and([test, x ?? 0]), and([-test, y ?? 0])])
      return { t: choose(a?.t, b?.t), f: choose(a?.f, b?.f) }
    }
    const value = this.casesOf(left)
    if (left.kind !== 'name' || !value) return null
    // Not in play it is blank.
    const [there, gone] = [
      this.of({ ...expr, left: value }),
      this.of({ ...expr, left: { kind: 'null', ...HERE } }),
    ]
    const { blank } = this.encoding.variable(left.name)
    const choose = (x: Literal, y: Literal) => or([and([-blank, x]), and([blank, y])])
    return { t: choose(there.t, gone.t), f: choose(there.f, gone.f) }
  }

  /** What a text or code is calculated by; null for numbers and times, which are sums, and for anything that is answered. */
  private casesOf(expr: Expr): Expr | null {
    const isText = (e: Expr): boolean =>
      e.kind === 'text' ||
      e.kind === 'null' ||
      (e.kind === 'if' && isText(e.then) && isText(e.else)) ||
      (e.kind === 'name' && TEXTS.has(this.model.copies.typeOf(e.name).kind))
    if (expr.kind === 'if') return isText(expr) ? expr : null
    if (expr.kind !== 'name' || this.model.circular.has(expr.name)) return null
    const value = this.model.stepOf(expr.name)?.value?.expr
    return value && isText(value) ? value : null
  }

  /** A question against what a choice leads to (`harbour.row.depth < draught`): for each choice that is a constant, which the classes are cut by. */
  private againstReached(expr: ExprOf<'compare'>): Truth | null {
    if (expr.right.kind === 'path' && expr.left.kind === 'name')
      return this.againstReached({ ...expr, op: FLIPPED[expr.op], left: expr.right, right: expr.left })
    if (
      expr.left.kind !== 'path' ||
      expr.right.kind !== 'name' ||
      this.isOpaque(expr.right.name) ||
      this.encoding.variable(expr.right.name).domain.many
    )
      return null
    const [name, ...others] = namesIn(expr.left)
    const choice =
      name === undefined || others.length > 0 || name === expr.right.name
        ? null
        : this.encoding.variable(name)
    if (!choice?.domain.singletons || choice.domain.opaque || name === undefined) return null
    const { copies } = this.model
    const reach = compile(expr.left, copies.environment)
    const slot = copies.environment.slotOf(name) ?? 0
    const constants = this.model.asked.constants.get(baseOf(expr.right.name).base) ?? []
    const [holding, failing]: [Literal[], Literal[]] = [[], []]
    const values = new Array<Value>(copies.size).fill(null)
    for (const { value, literal } of [...choice.classes, { value: null, literal: choice.blank }]) {
      values[slot] = value
      const reached = reach(values)
      if (reached !== null && !constants.some(c => valueKey(c) === valueKey(reached))) return null
      const truth = this.againstConstant(
        expr.right.name,
        FLIPPED[expr.op],
        literalOf(reached, copies.typeOf(expr.right.name)),
        { ...expr, left: expr.right, right: expr.left },
      )
      holding.push(this.encoding.and([literal, truth.t]))
      failing.push(this.encoding.and([literal, truth.f]))
    }
    return { t: this.encoding.or(holding), f: this.encoding.or(failing) }
  }

  /** A question against a constant: the classes decide, since the constant is among those that cut them. */
  private againstConstant(code: string, op: CompareOp, constant: Expr, expr: ExprOf<'compare'>): Truth {
    const variable = this.encoding.variable(code)
    const run = compile(
      { ...expr, op, left: { kind: 'name', name: code, ...HERE }, right: constant },
      () => 1,
    )
    const outcome = (value: Value) => run(['', value])
    const holding = variable.classes.filter(c => outcome(c.value) === true).map(c => c.literal)
    const failing = variable.classes.filter(c => outcome(c.value) === false).map(c => c.literal)
    const blank = outcome(null)
    if (blank === true) holding.push(variable.blank)
    if (blank === false) failing.push(variable.blank)
    return { t: this.encoding.or(holding), f: this.encoding.or(failing) }
  }

  /** Equality of two conditions: both true, both false, or both unknown. */
  private booleans({ op, left, right }: ExprOf<'compare'>): Truth | null {
    const isCondition = (e: Expr): boolean => this.isCondition(e)
    if (!isCondition(left) || !isCondition(right) || (op !== '=' && op !== '!=')) return null
    const [a, b] = [this.of(left), this.of(right)]
    const same = this.encoding.or([
      this.encoding.and([a.t, b.t]),
      this.encoding.and([a.f, b.f]),
      this.encoding.and([-a.t, -a.f, -b.t, -b.f]),
    ])
    return this.certain(op === '=' ? same : -same)
  }

  isCondition(expr: Expr): boolean {
    if (expr.kind === 'if') return this.isCondition(expr.then) && this.isCondition(expr.else)
    if (expr.kind === 'name')
      return (
        this.model.copies.typeOf(expr.name).kind === 'boolean' &&
        (!this.isOpaque(expr.name) || this.calculated(expr.name) !== null)
      )
    if (expr.kind === 'call') return TESTS.has(expr.name)
    return ['boolean', 'and', 'or', 'not', 'compare', 'in', 'between', 'quantified'].includes(expr.kind)
  }

  /** With the answers of single entries and rows by their names. */
  private withNames = (expr: Expr): Expr =>
    replaced(expr, n => {
      const one = n.kind === 'path' || n.kind === 'filter' ? single(n, this.model.copies) : n
      return one === n ? null : one
    })

  /** A test of questions with few single answers each (yes/no, choices, today apart) by trying all combinations. */
  private tabulated(whole: Expr): Truth | null {
    const expr = this.withNames(whole)
    const names = namesIn(expr)
    if (usesToday(expr)) return null
    const variables = names.map(name => this.encoding.variable(name))
    const [only] = names
    const isTold = (v: Variable) =>
      v.domain.singletons ||
      (v.domain.uniform === true && names.length === 1 && only !== undefined && isTextTest(expr, only))
    if (
      variables.some(v => !isTold(v) || v.domain.opaque) ||
      variables.reduce((n, v) => n * (v.classes.length + 1), 1) > MOST_ROWS
    )
      return null
    const { copies } = this.model
    const run = compile(expr, copies.environment)
    const slots = names.map(name => copies.environment.slotOf(name) ?? 0)
    const all = new Array<Value>(copies.size).fill(null)
    const outcomes: { true: Literal[]; false: Literal[] } = { true: [], false: [] }
    const visit = (at: number, values: Value[], literals: Literal[]) => {
      const variable = variables[at]
      if (!variable) {
        slots.forEach((slot, i) => {
          all[slot] = values[i] ?? null
        })
        const outcome = run(all)
        if (typeof outcome === 'boolean') outcomes[`${outcome}`].push(this.encoding.and(literals))
        return
      }
      visit(at + 1, [...values, null], [...literals, variable.blank])
      for (const c of variable.classes) visit(at + 1, [...values, c.value], [...literals, c.literal])
    }
    visit(0, [], [])
    return { t: this.encoding.or(outcomes.true), f: this.encoding.or(outcomes.false) }
  }

  /** A test that the classes don't decide: free, but known to be unknown while what it needs is blank. */
  private open(expr: Expr): Truth {
    this.encoding.widen()
    const key = print(expr)
    const known = this.encoding.free.get(key)
    if (known) return known
    const truth = { t: this.encoding.solver.newVariable(), f: this.encoding.solver.newVariable() }
    this.encoding.free.set(key, truth)
    this.encoding.solver.addClause([-truth.t, -truth.f])
    const isEquality = expr.kind === 'compare' && (expr.op === '=' || expr.op === '!=')
    if (isEquality) this.encoding.solver.addClause([truth.t, truth.f])
    for (const name of namesIn(expr)) {
      const { blank } = this.encoding.variable(name)
      if (!isEquality && isStrict(expr)) {
        this.encoding.solver.addClause([-blank, -truth.t])
        this.encoding.solver.addClause([-blank, -truth.f])
      }
    }
    return truth
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
const MOST_ROWS = 600

const CONSTANTS: ReadonlySet<Expr['kind']> = new Set([
  'number',
  'text',
  'boolean',
  'date',
  'time',
  'dateTime',
])
const isConstant = (expr: Expr) => CONSTANTS.has(expr.kind)
