import { compile } from '../expressions/compile'
import { dateTimeFromSeconds, dayNumber, isoFromDay, timeFromSeconds } from '../expressions/dates'
import { print } from '../expressions/print'
import { namesIn, type CompareOp, type Expr, type ExprOf } from '../expressions/tree'
import type { Value } from '../expressions/types'
import { SOMETHING, type Domain } from './domains'
import { keyOf } from '../lists/listIndex'
import { literalOf } from '../parties/literal'
import type { Model } from './model'
import { Arithmetic, constantOf, linearSum, linearTimes } from './arithmetic'
import { floorOf, rational, toDecimal } from './rational'
import { FLIPPED, HERE, isStrict, testExpression, twoSided } from './rewritten'
import { Solver, type Literal } from './sat'
import { Terms, usesToday } from './terms'
import { isTextTest } from './textClasses'

/** When a condition is definitely true, and when definitely false; neither is unknown. */
export interface Truth { t: Literal, f: Literal }

/** The answer of one question in the solver: one literal per class, and one for blank. Exactly one holds; of a multiple choice, blank or some. */
interface Variable { blank: Literal, classes: readonly { value: Value, literal: Literal }[], domain: Domain, isOpen: boolean }


/**
 * Conditions as clauses over classes of answers. Truth is encoded by polarity, so that three-valued logic is exact.
 *
 * What is not exact is a test whose outcome the classes don't decide (arithmetic between answers, functions of texts, today):
 * it becomes a free variable. A contradiction then still holds for all answers; an example must be replayed.
 */
export class Encoding {
  readonly solver = new Solver()
  readonly arithmetic: Arithmetic
  readonly terms: Terms
  readonly yes: Literal
  private readonly variables = new Map<string, Variable>()
  private readonly truths = new Map<Expr, { truth: Truth, open: boolean }>()
  private readonly free = new Map<string, Truth>()
  /** Grows with everything met that is not exact; see `watched`. */
  private opened = 0

  constructor(readonly model: Model) {
    this.yes = this.solver.newVariable()
    this.solver.addClause([this.yes])
    this.arithmetic = new Arithmetic(this.solver, this.yes)
    this.terms = new Terms(this)
  }

  /** Says that answers are taken wider than they are. */
  widen() {
    this.opened += 1
  }

  /**
   * Whether something that is looked at rests on a test left open, or on answers taken wider than they are; proofs of impossibility stay
   * exact, examples need their replay.
   */
  watched<T>(look: () => T): { result: T, isOpen: boolean } {
    const before = this.opened
    const result = look()
    return { result, isOpen: this.opened > before }
  }

  variable(code: string): Variable {
    const known = this.variables.get(code)
    if (known) {
      if (known.isOpen) this.widen()
      return known
    }
    const domain = this.model.domain(code)
    const blank = this.solver.newVariable()
    this.solver.prefer(blank)
    const classes = domain.classes.map(value => ({ value, literal: this.solver.newVariable() }))
    const all = [blank, ...classes.map(c => c.literal)]
    this.solver.addClause(all)
    if (domain.many) for (const c of classes) this.solver.addClause([-blank, -c.literal])
    else this.atMostOne(all)
    const variable: Variable = { blank, classes, domain, isOpen: domain.open }
    this.variables.set(code, variable)
    // A calculated value is as exact as what it is made of.
    const made = this.model.circular.has(code) ? null : this.model.stepOf(code)?.value?.expr
    if (made) {
      const { result, isOpen } = this.watched(() => this.given(made))
      variable.isOpen = isOpen || result === null
    }
    if (variable.isOpen) this.widen()
    if (domain.many) this.limitChoices(code, variable)
    return variable
  }

  /** At least and at most so many are chosen; what stands alone is chosen alone. */
  private limitChoices(code: string, { blank, classes, domain }: Variable) {
    const question = this.model.stepOf(code)
    if (question?.place.node.type !== 'choices') return
    const { node } = question.place
    const alone = new Set([...question.offer?.rows.values() ?? []].flatMap(r => r.alone ? [r.code] : []))
    for (const c of classes) if (alone.has(String(c.value))) for (const other of classes) if (other !== c) this.solver.addClause([-c.literal, -other.literal])
    if (node.least === undefined && node.most === undefined) return
    const count = this.terms.count(code)
    if (!count || domain.opaque) return this.widen()
    const against = (limit: number, by: 1 | -1) => this.arithmetic.atMostZero(linearTimes(linearSum(count.linear, constantOf(rational(limit)), rational(-1)), rational(by)))
    if (node.least !== undefined) this.solver.addClause([blank, against(node.least, -1)])
    if (node.most !== undefined) this.solver.addClause([blank, against(node.most, 1)])
  }

  /** Pairwise for few; a ladder (“one of those so far”, Sinz 2005) for many, so that clauses grow with their number only. */
  private atMostOne(literals: readonly Literal[]) {
    if (literals.length <= 6) {
      literals.forEach((a, i) => literals.slice(i + 1).forEach(b => this.solver.addClause([-a, -b])))
      return
    }
    let before: Literal | null = null
    for (const literal of literals) {
      if (before !== null) this.solver.addClause([-before, -literal])
      const soFar = this.solver.newVariable()
      this.solver.addClause([-literal, soFar])
      if (before !== null) this.solver.addClause([-before, soFar])
      before = soFar
    }
  }

  /** The answers in the model that the solver found, blanks left out. */
  answers(): Map<string, Value> {
    const answers = new Map<string, Value>()
    for (const [code, variable] of this.variables) {
      const chosen = variable.classes.filter(c => this.solver.isTrue(c.literal)).map(c => c.value)
      const [first] = chosen
      if (variable.domain.many && chosen.length > 0) answers.set(code, this.counted(code, chosen))
      else if (first !== undefined) {
        const value = this.numberOf(code) ?? first
        if (value !== SOMETHING) answers.set(code, value)
      }
    }
    return answers
  }

  /** The number or time that the arithmetic found for a question; null where it did not matter. */
  private numberOf(code: string): Value {
    const index = this.terms.variables.get(code)
    const found = index === undefined ? null : this.arithmetic.valueOf(index)
    if (found === null) return null
    const value = toDecimal(found)
    const kind = this.model.plan.names.typeOf(code).kind
    if (kind === 'number' || typeof value !== 'number') return value
    return kind === 'date' ? isoFromDay(value) : kind === 'time' ? timeFromSeconds(value) : dateTimeFromSeconds(value)
  }

  /** Chosen codes, with as many of those that no condition asks for as were counted. */
  private counted(code: string, chosen: readonly Value[]): Value[] {
    const { domain: { classes, sizes } } = this.variable(code)
    const index = this.terms.others.get(code)
    const wanted = index === undefined ? null : this.arithmetic.valueOf(index)
    if (wanted === null || !chosen.includes(classes[0] ?? null) || (sizes?.[0] ?? 1) === 1) return [...chosen]
    const named = new Set(classes)
    const others = [...this.model.stepOf(code)?.offer?.rows.keys() ?? []].filter(c => !named.has(c)).slice(0, Number(floorOf(wanted)) - 1)
    return [...chosen, ...others]
  }

  /** The day that `today()` is in the model found last; null where it does not matter. */
  day(): string | null {
    const found = this.terms.todayIndex === null ? null : this.arithmetic.valueOf(this.terms.todayIndex)
    return found === null ? null : isoFromDay(Number(floorOf(found)))
  }

  /** Literals for “today is the day on which is proved”; none where no condition asks. */
  firstDay(): Literal[] {
    const today = this.terms.today
    return today ? [this.arithmetic.atMostZero(linearSum(today.linear, constantOf(rational(dayNumber(this.model.today) ?? 0)), rational(-1)))] : []
  }

  /** When a calculation has a value; null where that can't be told. */
  given(expr: Expr): Literal | null {
    const term = this.terms.of(expr)
    if (term) return term.given
    if (!this.isCondition(expr)) return null
    const { t, f } = this.truth(expr)
    return this.or([t, f])
  }

  /** The codes of the questions that the model found last answers. */
  answered = (): Set<string> => new Set(this.askedCodes().filter(code => !this.solver.isTrue(this.variable(code).blank)))

  /** The codes of the questions that are answered, not calculated. */
  askedCodes = (): string[] => this.codes().filter(code => this.model.stepOf(code)?.value === null)

  /** The literals of tests that the answers don't determine. */
  undetermined = (): readonly Literal[] => this.free.size === 0 ? this.arithmetic.literals() : [...this.arithmetic.literals(), ...[...this.free.values()].flatMap(({ t, f }) => [t, f])]

  codes = (): string[] => [...this.variables.keys()]

  and = (literals: readonly Literal[]): Literal => {
    const kept = [...new Set(literals)].filter(l => l !== this.yes)
    if (kept.includes(-this.yes)) return -this.yes
    const [only] = kept
    if (only === undefined) return this.yes
    if (kept.length === 1) return only
    const result = this.solver.newVariable()
    for (const literal of kept) this.solver.addClause([-result, literal])
    this.solver.addClause([result, ...kept.map(l => -l)])
    return result
  }

  or = (literals: readonly Literal[]): Literal => -this.and(literals.map(l => -l))

  /** The truth of a condition. */
  truth(expr: Expr): Truth {
    const known = this.truths.get(expr)
    if (known) {
      if (known.open) this.widen()
      return known.truth
    }
    const { result, isOpen } = this.watched(() => this.build(expr))
    this.truths.set(expr, { truth: result, open: isOpen })
    return result
  }

  private build(expr: Expr): Truth {
    switch (expr.kind) {
      case 'boolean': return expr.value ? this.always() : this.never()
      case 'null': return { t: -this.yes, f: -this.yes }
      case 'name': return this.calculated(expr.name) ?? (this.isOpaque(expr.name) ? this.open(expr) : { t: this.equals(expr.name, true), f: this.equals(expr.name, false) })
      case 'and': case 'or': {
        const parts = expr.parts.map(part => this.truth(part))
        return expr.kind === 'and'
          ? { t: this.and(parts.map(p => p.t)), f: this.or(parts.map(p => p.f)) }
          : { t: this.or(parts.map(p => p.t)), f: this.and(parts.map(p => p.f)) }
      }
      case 'not': {
        const { t, f } = this.truth(expr.value)
        return { t: f, f: t }
      }
      case 'if': {
        const [test, then, otherwise] = [this.truth(expr.test), this.truth(expr.then), this.truth(expr.else)]
        const choose = (a: Literal, b: Literal) => this.or([this.and([test.t, a]), this.and([-test.t, b])])
        return { t: choose(then.t, otherwise.t), f: choose(then.f, otherwise.f) }
      }
      case 'between': return this.truth(twoSided(expr.value, { op: '>=', value: expr.low }, { op: '<=', value: expr.high }))
      case 'in': return this.membership(expr)
      case 'compare': return this.compare(expr)
      case 'call': return (expr.name === 'list contains' ? this.contains(expr) : null) ?? this.tabulated(expr) ?? this.open(expr)
      default: return this.tabulated(expr) ?? this.open(expr)
    }
  }

  /** A calculated yes or no: what its condition is, while it is in play. */
  private calculated(code: string): Truth | null {
    const expr = this.model.stepOf(code)?.value?.expr
    if (!expr || !this.isCondition(expr) || this.model.circular.has(code)) return null
    const { blank } = this.variable(code)
    const { t, f } = this.truth(expr)
    return { t: this.and([t, -blank]), f: this.and([f, -blank]) }
  }

  private always = (): Truth => ({ t: this.yes, f: -this.yes })
  private never = (): Truth => ({ t: -this.yes, f: this.yes })
  private certain = (t: Literal): Truth => ({ t, f: -t })

  private isOpaque = (code: string): boolean => this.variable(code).domain.opaque

  /** `list contains(works, "welding")`: whether a multiple choice includes a code; unknown when nothing is chosen. */
  private contains({ args: [list, code] }: ExprOf<'call'>): Truth | null {
    if (list?.kind !== 'name' || code?.kind !== 'text') return null
    const { blank, classes, domain } = this.variable(list.name)
    if (!domain.many || domain.opaque) return null
    const literal = classes.find(c => c.value === code.value)?.literal ?? -this.yes
    return { t: literal, f: this.and([-literal, -blank]) }
  }

  private equals = (code: string, value: Value): Literal =>
    this.variable(code).classes.find(c => c.value === value)?.literal ?? -this.yes

  private membership(expr: ExprOf<'in'>): Truth {
    const [only] = expr.tests
    if (expr.bare && only && only.kind !== 'range' && only.kind !== 'unaryTest' && !isConstant(only)) {
      return this.tabulated(expr) ?? this.open(expr)
    }
    const parts = expr.tests.map(test => this.truth(testExpression(expr.value, test)))
    return { t: this.or(parts.map(p => p.t)), f: this.and(parts.map(p => p.f)) }
  }

  private compare(expr: ExprOf<'compare'>): Truth {
    const { op, left, right } = expr
    if (left.kind !== 'name' && right.kind === 'name') return this.truth({ ...expr, op: FLIPPED[op], left: right, right: left })
    if (left.kind === 'name' && right.kind === 'null') {
      const blank = this.variable(left.name).blank
      if (op === '=' || op === '!=') return this.certain(op === '=' ? blank : -blank)
      return { t: -this.yes, f: -this.yes }
    }
    if (left.kind === 'name' && isConstant(right) && !this.isOpaque(left.name) && !this.variable(left.name).domain.many) return this.againstConstant(left.name, op, right, expr)
    return this.tabulated(expr) ?? this.againstReached(expr) ?? this.terms.compare(op, left, right) ?? this.booleans(expr) ?? this.open(expr)
  }

  /** A question against what a choice leads to (`harbour.row.depth < draught`): for each choice that is a constant, which the classes are cut by. */
  private againstReached(expr: ExprOf<'compare'>): Truth | null {
    if (expr.right.kind === 'path' && expr.left.kind === 'name') return this.againstReached({ ...expr, op: FLIPPED[expr.op], left: expr.right, right: expr.left })
    if (expr.left.kind !== 'path' || expr.right.kind !== 'name' || this.isOpaque(expr.right.name) || this.variable(expr.right.name).domain.many) return null
    const [name, ...others] = namesIn(expr.left)
    const choice = name === undefined || others.length > 0 || name === expr.right.name ? null : this.variable(name)
    if (!choice?.domain.singletons || choice.domain.opaque || name === undefined) return null
    const { plan } = this.model
    const reach = compile(expr.left, plan.environment)
    const slot = plan.environment.slotOf(name) ?? 0
    const constants = this.model.asked.constants.get(expr.right.name) ?? []
    const [holding, failing]: [Literal[], Literal[]] = [[], []]
    const values = new Array<Value>(plan.size).fill(null)
    for (const { value, literal } of [...choice.classes, { value: null, literal: choice.blank }]) {
      values[slot] = value
      const reached = reach(values)
      if (reached !== null && !constants.some(c => keyOf(c) === keyOf(reached))) return null
      const truth = this.againstConstant(expr.right.name, FLIPPED[expr.op], literalOf(reached, plan.names.typeOf(expr.right.name)), { ...expr, left: expr.right, right: expr.left })
      holding.push(this.and([literal, truth.t]))
      failing.push(this.and([literal, truth.f]))
    }
    return { t: this.or(holding), f: this.or(failing) }
  }

  /** A question against a constant: the classes decide, since the constant is among those that cut them. */
  private againstConstant(code: string, op: CompareOp, constant: Expr, expr: ExprOf<'compare'>): Truth {
    const variable = this.variable(code)
    const run = compile({ ...expr, op, left: { kind: 'name', name: code, ...HERE }, right: constant }, () => 1)
    const outcome = (value: Value) => run(['', value])
    const holding = variable.classes.filter(c => outcome(c.value) === true).map(c => c.literal)
    const failing = variable.classes.filter(c => outcome(c.value) === false).map(c => c.literal)
    const blank = outcome(null)
    if (blank === true) holding.push(variable.blank)
    if (blank === false) failing.push(variable.blank)
    return { t: this.or(holding), f: this.or(failing) }
  }

  /** Equality of two conditions: both true, both false, or both unknown. */
  private booleans({ op, left, right }: ExprOf<'compare'>): Truth | null {
    const isCondition = (e: Expr): boolean => this.isCondition(e)
    if (!isCondition(left) || !isCondition(right) || (op !== '=' && op !== '!=')) return null
    const [a, b] = [this.truth(left), this.truth(right)]
    const same = this.or([this.and([a.t, b.t]), this.and([a.f, b.f]), this.and([-a.t, -a.f, -b.t, -b.f])])
    return this.certain(op === '=' ? same : -same)
  }

  private isCondition(expr: Expr): boolean {
    if (expr.kind === 'if') return this.isCondition(expr.then) && this.isCondition(expr.else)
    if (expr.kind === 'name') return this.model.plan.names.typeOf(expr.name).kind === 'boolean' && (!this.isOpaque(expr.name) || this.calculated(expr.name) !== null)
    if (expr.kind === 'call') return TESTS.has(expr.name)
    return ['boolean', 'and', 'or', 'not', 'compare', 'in', 'between', 'quantified'].includes(expr.kind)
  }

  /** A test of questions with few single answers each (yes/no, choices, today apart) by trying all combinations. */
  private tabulated(expr: Expr): Truth | null {
    const names = namesIn(expr)
    if (usesToday(expr)) return null
    const variables = names.map(name => this.variable(name))
    const [only] = names
    const isTold = (v: Variable) => v.domain.singletons || (v.domain.uniform === true && names.length === 1 && only !== undefined && isTextTest(expr, only))
    if (variables.some(v => !isTold(v) || v.domain.opaque) || variables.reduce((n, v) => n * (v.classes.length + 1), 1) > MOST_ROWS) return null
    const { plan } = this.model
    const run = compile(expr, plan.environment)
    const slots = names.map(name => plan.environment.slotOf(name) ?? 0)
    const all = new Array<Value>(plan.size).fill(null)
    const outcomes: { true: Literal[], false: Literal[] } = { true: [], false: [] }
    const visit = (at: number, values: Value[], literals: Literal[]) => {
      const variable = variables[at]
      if (!variable) {
        slots.forEach((slot, i) => { all[slot] = values[i] ?? null })
        const outcome = run(all)
        if (typeof outcome === 'boolean') outcomes[`${outcome}`].push(this.and(literals))
        return
      }
      visit(at + 1, [...values, null], [...literals, variable.blank])
      for (const c of variable.classes) visit(at + 1, [...values, c.value], [...literals, c.literal])
    }
    visit(0, [], [])
    return { t: this.or(outcomes.true), f: this.or(outcomes.false) }
  }

  /** A test that the classes don't decide: free, but known to be unknown while what it needs is blank. */
  private open(expr: Expr): Truth {
    this.widen()
    const key = print(expr)
    const known = this.free.get(key)
    if (known) return known
    const truth = { t: this.solver.newVariable(), f: this.solver.newVariable() }
    this.free.set(key, truth)
    this.solver.addClause([-truth.t, -truth.f])
    const isEquality = expr.kind === 'compare' && (expr.op === '=' || expr.op === '!=')
    if (isEquality) this.solver.addClause([truth.t, truth.f])
    for (const name of namesIn(expr)) {
      const { blank } = this.variable(name)
      if (!isEquality && isStrict(expr)) {
        this.solver.addClause([-blank, -truth.t])
        this.solver.addClause([-blank, -truth.f])
      }
    }
    return truth
  }
}

/** The functions that give yes or no. */
const TESTS: ReadonlySet<string> = new Set(['list contains', 'contains', 'starts with', 'ends with', 'matches', 'all', 'any'])
const MOST_ROWS = 600

const CONSTANTS: ReadonlySet<Expr['kind']> = new Set(['number', 'text', 'boolean', 'date', 'time', 'dateTime'])
const isConstant = (expr: Expr) => CONSTANTS.has(expr.kind)
