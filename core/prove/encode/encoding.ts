import { EntryTests } from './entryTests'
import { EntrySources } from './entrySources'
import { EntryNumbers } from './entryNumbers'
import { FurtherEntries } from './furtherEntries'
import { GroupEntries } from './groupEntries'
import type { Encoder, FreeTest, Equality, Truth, Variable, Term, Unit, TermCase } from './encoder'
import { dateTimeFromSeconds, dayNumber, isoFromDay, timeFromSeconds } from '../../expressions/dates'
import { isLengthBetween } from './ages'
import { namesIn, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { SOMETHING } from '../model/domain'
import { Arithmetic } from '../solver/arithmetic'
import { constantOf, linearSum, linearTimes } from '../solver/linear'
import { plainCode } from '../model/entryCodes'
import type { Model } from '../model/model'
import type { PieceTest } from '../model/textAutomata'
import { floorOf, rational, toDecimal } from '../solver/rational'
import { Solver } from '../solver/solver'
import type { Literal } from '../solver/literal'
import { Terms } from './terms'
import { TextPieces } from './textPieces'
import { Truths } from './truths'

/** Answers as variables over their classes, and with them all that conditions say of them. */
export class Encoding implements Encoder {
  readonly solver = new Solver()
  readonly arithmetic: Arithmetic
  readonly yes: Literal
  readonly free = new Map<string, FreeTest>()
  readonly equalities: Equality[] = []
  /** The groups that rules look into, and entries of theirs that are not told apart. */
  readonly groups: GroupEntries
  readonly further: FurtherEntries
  private readonly variables = new Map<string, Variable>()
  private readonly terms: Terms
  private readonly truths: Truths
  private readonly pieces: TextPieces
  private readonly numbers: EntryNumbers
  /** Grows with everything met that is not exact; see `watched`. */
  private opened = 0

  constructor(readonly model: Model) {
    this.yes = this.solver.newVariable()
    this.solver.addClause([this.yes])
    this.arithmetic = new Arithmetic(this.solver, this.yes)
    this.groups = new GroupEntries(this)
    this.further = new FurtherEntries(this, this.groups)
    const sources = new EntrySources(this, this.groups)
    this.numbers = new EntryNumbers(this, this.groups, this.further, sources)
    this.terms = new Terms(this)
    this.pieces = new TextPieces(this)
    this.truths = new Truths(this, new EntryTests(this, this.groups, this.further, sources))
  }

  truth = (expr: Expr): Truth => this.truths.of(expr)
  testOfPiece = (code: string, test: PieceTest): Truth | null => this.pieces.truth(plainCode(code), test)
  term = (expr: Expr): Term | null => this.terms.of(expr)
  termOfQuestion = (code: string): Term | null => this.terms.questions.of(code)
  among = (unit: Unit, cases: readonly TermCase[]): Term => this.terms.among(unit, cases)
  aggregate = (expr: ExprOf<'call'>): Term | null => this.numbers.aggregate(expr)

  /** Says that answers are taken wider than they are. */
  widen() {
    this.opened += 1
  }

  /**
   * Whether something that is looked at rests on a test left open, or on answers taken wider than they are; proofs of impossibility stay
   * exact, examples need their replay.
   */
  watched<T>(look: () => T): { result: T; isOpen: boolean } {
    const before = this.opened
    const result = look()
    return { result, isOpen: this.opened > before }
  }

  /** What may be true, false or unknown, whatever is answered. */
  anything(): Truth {
    this.widen()
    const truth = { t: this.solver.newVariable(), f: this.solver.newVariable(), expr: null }
    this.free.set(`${ANYTHING}${this.free.size}`, truth)
    this.solver.addClause([-truth.t, -truth.f])
    return truth
  }

  variable(of: string): Variable {
    const code = plainCode(of)
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
    const alone = new Set([...(question.offer?.rows.values() ?? [])].flatMap(r => (r.alone ? [r.code] : [])))
    for (const c of classes)
      if (alone.has(String(c.value)))
        for (const other of classes) if (other !== c) this.solver.addClause([-c.literal, -other.literal])
    if (node.least === undefined && node.most === undefined) return
    const count = this.terms.chosen.count(code)
    if (!count || domain.opaque) return this.widen()
    const against = (limit: number, by: 1 | -1) =>
      this.arithmetic.atMostZero(
        linearTimes(linearSum(count.linear, constantOf(rational(limit)), rational(-1)), rational(by)),
      )
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
  answers(codes: Iterable<string> = this.variables.keys()): Map<string, Value> {
    const answers = new Map<string, Value>()
    for (const code of codes) {
      const variable = this.variables.get(code)
      if (!variable) continue
      const chosen = variable.classes.filter(c => this.solver.isTrue(c.literal)).map(c => c.value)
      const [first] = chosen
      if (variable.domain.many && chosen.length > 0) answers.set(code, this.counted(code, chosen))
      else if (first !== undefined) {
        const value = this.numberOf(code) ?? (first === SOMETHING ? this.pieces.chosen(code) : null) ?? first
        if (value !== SOMETHING) answers.set(code, value)
      }
    }
    return answers
  }

  /** The number or time that the arithmetic found for a question; null where it did not matter. */
  private numberOf(code: string): Value {
    const index = this.terms.questions.variables.get(code)
    const found = index === undefined ? null : this.arithmetic.valueOf(index)
    if (found === null) return null
    const value = toDecimal(found)
    const read = typeof value === 'number' ? TIMES[this.model.copies.typeOf(code).kind] : undefined
    return read && typeof value === 'number' ? read(value) : value
  }

  /** Chosen codes, with as many of those that no condition asks for as were counted. */
  private counted(code: string, chosen: readonly Value[]): Value[] {
    const {
      domain: { classes, sizes },
    } = this.variable(code)
    const index = this.terms.chosen.others.get(code)
    const wanted = index === undefined ? null : this.arithmetic.valueOf(index)
    if (wanted === null || !chosen.includes(classes[0] ?? null) || (sizes?.[0] ?? 1) === 1) return [...chosen]
    const named = new Set(classes)
    const others = [...(this.model.stepOf(code)?.offer?.rows.keys() ?? [])]
      .filter(c => !named.has(c))
      .slice(0, Number(floorOf(wanted)) - 1)
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
    return today
      ? [
          this.arithmetic.atMostZero(
            linearSum(today.linear, constantOf(rational(dayNumber(this.model.today) ?? 0)), rational(-1)),
          ),
        ]
      : []
  }

  /** When a calculation has a value; null where that can't be told. */
  given(expr: Expr): Literal | null {
    const term = this.terms.of(expr)
    if (term) return term.given
    if (expr.kind === 'text') return this.yes
    if (expr.kind === 'null') return -this.yes
    if (isLengthBetween(expr)) return this.givenNames(expr)
    if (expr.kind === 'name') return -this.variable(expr.name).blank
    if (expr.kind === 'if' && !this.truths.isCondition(expr)) {
      const [then, otherwise] = [this.given(expr.then), this.given(expr.else)]
      const { t } = this.truth(expr.test)
      return then === null || otherwise === null
        ? null
        : this.or([this.and([t, then]), this.and([-t, otherwise])])
    }
    if (!this.truths.isCondition(expr)) return null
    const { t, f } = this.truth(expr)
    return this.or([t, f])
  }

  /** All that an expression names has a value. */
  private givenNames = (expr: Expr): Literal =>
    this.and(namesIn(expr).map(name => -this.variable(name).blank))

  /** The codes of the questions that the model found last answers. */
  answered = (): Set<string> =>
    new Set(this.askedCodes().filter(code => !this.solver.isTrue(this.variable(code).blank)))

  /** The codes of the questions that are answered, not calculated. */
  askedCodes = (): string[] => this.codes().filter(code => this.model.stepOf(code)?.value === null)

  /** The literals of tests that the answers don't determine. */
  undetermined = (): readonly Literal[] =>
    this.free.size === 0
      ? this.arithmetic.literals()
      : [...this.arithmetic.literals(), ...[...this.free.values()].flatMap(({ t, f }) => [t, f])]

  /** The questions that products and quotients are made of. */
  opaqueNames = (): string[] => [...this.terms.opaque.names]

  /** What the answers’ classes don’t decide: tests, and numbers that are no sums. */
  openParts = (): Expr[] => [
    ...[...this.free.values()].flatMap(({ expr }) => expr ?? []),
    ...this.terms.opaque.parts(),
  ]

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
}

const ANYTHING = '\u0000anything '

/** What numbers of units are as dates and times. */
const TIMES: Partial<Record<string, (n: number) => string | null>> = {
  date: isoFromDay,
  time: timeFromSeconds,
  dateTime: dateTimeFromSeconds,
}
