import type { Answers } from '../../form/answers'
import type { PlannedGroup, PlannedQuestion, PlannedRule, PlannedSection, Step } from '../../fill/planned'
import { isRepeating } from '../../fill/steps'
import { ruleId, type RuleKind } from '../../form/rules'
import { valueKey } from '../../lists/listIndex'
import type { Place } from '../../form/walk'
import { Encoding } from '../encode/encoding'
import { offersOf } from '../encode/offers'
import type { ConflictPart } from '../finding'
import { locksOf, shownChain, type Model } from '../model/model'
import type { Literal, Outcome } from '../solver/literal'
import { Ways } from './routeLiterals'
import { blockersIn, coneOf, type Cone } from './dependencyClosure'
import { constantDefault } from '../model/domains'
import { baseOf, type Entries } from '../model/entries'
import { exampleOf } from './exampleAnswers'

/** Conflicts that one call of the solver may meet: the same on every machine, so the same form gets the same verdict. */
export const CONFLICT_LIMIT = 20_000
/** How often numbers may be asked for until a model has some. */
const MOST_ROUNDS = 150

/**
 * The states of a form in which a section is the current one, as clauses: every section before it complete, this one filled
 * in part, later ones blank (docs/meaning.md). Every rule is switched by a literal of its own, so that a contradiction tells
 * which rules bring it about. What a switched-off rule would decide is then free.
 */
export class StateSpace {
  readonly encoding: Encoding
  private readonly switches = new Map<string, { literal: Literal; part: ConflictPart }>()
  private readonly shownOf = new Map<number, Literal>()
  private readonly switchLiterals: Literal[] = []
  private readonly ruleLiterals = new Map<string, Literal>()
  private readonly ways: Ways

  private readonly offeredOf = new Map<string, Literal[]>()
  /** Choices of which it can't be said by conditions what they offer. */
  private readonly unclear = new Set<string>()
  private readonly demands = new Map<string, Literal>()
  /** What the goal being asked depends on. */
  private asked: readonly string[] = []
  private among: readonly Literal[] = []
  private readonly scopes = new Map<string, Scope>()
  /** The questions that are in it, with what they depend on. */
  private readonly taken = new Set<string>()
  private readonly groupsTaken = new Set<string>()

  /**
   * @param current the index of the section that is the current one; the number of sections means the finish
   * @param names the questions that goals name; what they depend on is added
   */
  constructor(
    readonly model: Model,
    readonly current: number,
    names: readonly string[] = [],
  ) {
    this.encoding = new Encoding(model)
    this.ways = new Ways(this)
    const cone = coneOf(model, current, names)
    this.asked = cone.codes
    this.take(cone)
    for (const blocker of model.blockers)
      if (blocker.place.section < current && !('read' in blocker) && model.isAlwaysFilled(blocker.place))
        this.checked(blocker)
  }

  private take({ codes }: Cone) {
    for (const code of codes) {
      if (this.taken.has(code)) continue
      this.taken.add(code)
      this.constrain(code)
    }
  }

  /**
   * Makes the space ready for a goal about some questions: several goals about one section share what decides the way there.
   * @returns the goal's literals, whether they rest on something that is not exact, and whether on a circle
   */
  ask(
    names: readonly string[],
    literals: (space: StateSpace) => Literal[],
  ): { literals: Literal[]; isOpen: boolean; isCircular: boolean } {
    const key = [...new Set(names)].sort().join()
    const scope = this.scopes.get(key) ?? this.scopeOf(coneOf(this.model, this.current, names))
    this.scopes.set(key, scope)
    this.asked = scope.codes
    this.among = scope.among
    const { result, isOpen } = this.encoding.watched(() => literals(this))
    return { literals: result, isOpen: isOpen || scope.isOpen, isCircular: scope.isCircular }
  }

  private scopeOf(cone: Cone): Scope {
    this.take(cone)
    const among: Literal[] = []
    const { isOpen } = this.encoding.watched(() => {
      for (const code of cone.codes) {
        const { blank, classes } = this.encoding.variable(code)
        among.push(blank, ...classes.map(c => c.literal))
        const place = this.model.stepOf(code)?.place
        if (place?.entryOf && !this.model.copies.of.has(place.entryOf.code) && place.section < this.current)
          this.encoding.widen()
        if (!this.isSurelyFilled(code) || this.unclear.has(code)) this.encoding.widen()
      }
      for (const expr of cone.exprs) this.encoding.truth(expr)
    })
    return {
      codes: cone.codes,
      among,
      isOpen,
      isCircular: cone.codes.some(code => this.model.circular.has(code)),
    }
  }

  /** Whether a question before the current section is required whatever is answered. */
  isNeeded(code: string): boolean {
    const question = this.model.stepOf(code)
    return (
      question?.required === true &&
      question.place.entryOf === null &&
      question.place.section < this.current &&
      this.model.isAlwaysFilled(question.place) &&
      shownChain(this.model, question).every(s => s.shown === null) &&
      this.model.plan.sections[question.place.section]?.shown === null &&
      (this.model.waypoint[question.place.section] ?? 0) === question.place.section &&
      question.offer?.narrow == null &&
      question.offer?.rules == null
    )
  }

  private isSurelyFilled(code: string): boolean {
    const place = this.model.stepOf(code)?.place
    return place === undefined || place.section >= this.current || this.model.isAlwaysFilled(place)
  }

  /** The literal “this is in play”, the section around it included. */
  inPlay(step: Step): Literal {
    const known = this.shownOf.get(step.place.order)
    if (known !== undefined) return known
    const literal = this.encoding.and([
      this.sectionShown(step.place.section),
      ...shownChain(this.model, step).flatMap(s => [
        this.rule(s.shown, s.place, 'shownWhen'),
        ...(s !== step && isRepeating(s) ? this.entryThere(s) : []),
      ]),
    ])
    this.shownOf.set(step.place.order, literal)
    return literal
  }

  /** The literal “the group has this entry”, where it matters how many it has. */
  private entryThere(group: PlannedGroup): Literal[] {
    const { base, entry } = baseOf(group.place.code)
    const entries = this.model.copies.of.get(base)
    if (!entries) return []
    this.constrainGroup(entries)
    return [this.encoding.entered.of(entries).exists[entry - 1] ?? this.encoding.yes]
  }

  /** A group is there just when it is in play. */
  private constrainGroup({ group }: Entries) {
    const { blank } = this.encoding.variable(group.place.code)
    if (this.groupsTaken.has(group.place.code)) return
    this.groupsTaken.add(group.place.code)
    const inPlay = this.inPlay(group)
    this.encoding.solver.addClause([blank, inPlay])
    this.encoding.solver.addClause([-blank, -inPlay])
  }

  /** The literal “what stands around this is in play”. */
  aroundShown(step: Step): Literal {
    const around = this.model.stepAt(step.parent)
    return around ? this.inPlay(around) : this.sectionShown(step.place.section)
  }

  /** The literal “the routes lead to this section, and its rule shows it”. */
  sectionShown(index: number): Literal {
    const section = this.model.plan.sections[index]
    if (!section) return this.encoding.yes
    return this.encoding.and([this.reached(index), this.rule(section.shown, section.place, 'shownWhen')])
  }

  /** The literal “the routes lead to this section”; the number of sections stands for the finish. */
  reached = (index: number): Literal => this.ways.reached(index)

  /** By route of a section: the literal “leaving the section takes this one”. */
  routesTaken = (index: number): Literal[] => this.ways.routesTaken(index)

  /** “This rule is true”: the truth of its condition while its switch is on, else anything. */
  rule(rule: PlannedRule | null, place: Place, kind: RuleKind, index = 0): Literal {
    if (rule === null) return this.encoding.yes
    const id = `${ruleId(place, kind, index)} ${place.order}`
    const known = this.ruleLiterals.get(id)
    if (known !== undefined) return known
    const { solver } = this.encoding
    const truth = rule.expr ? this.encoding.truth(rule.expr).t : -this.encoding.yes
    const on = this.switchFor(place, kind, index)
    const literal = solver.newVariable()
    solver.addClause([-on, -literal, truth])
    solver.addClause([-on, literal, -truth])
    this.ruleLiterals.set(id, literal)
    return literal
  }

  /** Something without condition: always so while its switch is on. */
  always(place: Place, kind: RuleKind, index = 0): Literal {
    const literal = this.encoding.solver.newVariable()
    this.encoding.solver.addClause([-this.switchFor(place, kind, index), literal])
    return literal
  }

  private switchFor(place: Place, kind: RuleKind, index: number): Literal {
    const id = ruleId(place, kind, index)
    const known = this.switches.get(id)
    if (known) return known.literal
    const literal = this.encoding.solver.newVariable()
    this.switchLiterals.push(literal)
    this.switches.set(id, { literal, part: { code: place.code, address: place.address, kind, index } })
    return literal
  }

  /** What holds of a question in every state: blank unless in play, and complete before the current section. */
  private constrain(code: string) {
    const question = this.model.stepOf(code)
    const entries = this.model.copies.of.get(code)
    if (entries && entries.group.place.section <= this.current) this.enter(entries)
    if (!question || question.place.section > this.current) return
    const { solver } = this.encoding
    const { blank } = this.encoding.variable(code)
    solver.addClause([blank, this.inPlay(question)])
    this.joinRows(question, blank)
    this.lock(question)
    this.offers(question)
    this.calculate(question)
    if (question.place.section >= this.current) return
    // An earlier entry is only seen through its group; that it must be complete is left to the replay, as is what no party may come to fill.
    const { entryOf } = question.place
    if (
      (entryOf === null || this.model.copies.of.has(entryOf.code)) &&
      this.model.isAlwaysFilled(question.place)
    )
      this.complete(question)
    else this.encoding.widen()
  }

  /** A read-only question has the answer that it begins with, whatever was given before. */
  private lock(question: PlannedQuestion) {
    const { blank, classes, domain } = this.encoding.variable(question.place.code)
    const locks = locksOf(this.model, question)
    if (locks.length === 0 || question.value !== null || domain.opaque) return
    const locked = this.encoding.or(
      locks.map(({ lock, place }) =>
        lock === true ? this.always(place, 'readOnly') : this.rule(lock, place, 'readOnly'),
      ),
    )
    const begins = constantDefault(question)
    const answer =
      begins === undefined ? blank : classes.find(c => valueKey(c.value) === valueKey(begins))?.literal
    if (answer === undefined) return this.encoding.widen()
    const on = begins === undefined ? [] : [-this.switchFor(question.place, 'default', 0)]
    this.encoding.solver.addClause([...on, -locked, -this.inPlay(question), answer])
  }

  /** A grid is blank while all its rows are. */
  private joinRows({ place: { code, node } }: PlannedQuestion, blank: Literal) {
    const rows = this.model.copies.rowsOf(code)
    if (node.type !== 'grid' || rows.length === 0) return
    const answered = rows.map(row => -this.encoding.variable(row).blank)
    for (const literal of answered) this.encoding.solver.addClause([-literal, -blank])
    if (rows.length === node.rows.length) this.encoding.solver.addClause([blank, ...answered])
  }

  /** A group that is looked into: before the current section, every entry is complete. */
  private enter(entries: Entries) {
    this.constrainGroup(entries)
    if (entries.group.place.section >= this.current || !this.model.isAlwaysFilled(entries.group.place)) return
    for (let entry = 1; entry <= entries.copies; entry++)
      for (const step of blockersIn(this.model, entries, entry)) if (!('read' in step)) this.checked(step)
  }

  /** A calculated value is there just when it is in play and what it needs is. */
  private calculate(question: PlannedQuestion) {
    const expr = question.value?.expr
    if (!expr || this.model.circular.has(question.place.code)) return
    const given = this.encoding.given(expr)
    if (given === null) return
    const { solver } = this.encoding
    const { blank } = this.encoding.variable(question.place.code)
    const on = this.switchFor(question.place, 'value', 0)
    solver.addClause([-on, -this.inPlay(question), -given, -blank])
    solver.addClause([-on, given, blank])
  }

  /** A class that is not on offer is not chosen. */
  private offers(question: PlannedQuestion) {
    const { offer, place } = question
    if (!offer || (offer.narrow === null && offer.rules === null)) return
    const { classes, domain } = this.encoding.variable(place.code)
    const kinds = domain.opaque ? null : classes.map(c => offersOf(question, domain.classes, c.value))
    if (kinds === null || kinds.some(k => k === null)) {
      this.unclear.add(place.code)
      return
    }
    const codes = [...offer.rows.keys()]
    const offered = kinds.map(rows =>
      this.encoding.or(
        (rows ?? []).map(parts => this.encoding.and(parts.map(p => this.encoding.truth(p).t))),
      ),
    )
    classes.forEach((c, i) => {
      const on = offer.narrow
        ? this.switchFor(place, 'narrowedBy', 0)
        : this.switchFor(place, 'option', Math.max(0, codes.indexOf(String(c.value))))
      this.encoding.solver.addClause([-on, -c.literal, offered[i] ?? this.encoding.yes])
    })
    this.offeredOf.set(place.code, offered)
  }

  /** By class, the literal “this is on offer now”; null where nothing is taken away, or it can't be said by conditions. */
  offered = (code: string): readonly Literal[] | null => this.offeredOf.get(code) ?? null

  private complete(question: PlannedQuestion) {
    this.demandAnswer(question)
    this.checked(question)
  }

  /** The checks of a question, group or section in play don't fail. */
  private checked(step: Step | PlannedSection) {
    const inPlay = 'routes' in step ? this.sectionShown(step.place.section) : this.inPlay(step)
    for (const [index, check] of step.checks.entries()) {
      if (!check.expr) continue
      const on = this.switchFor(step.place, 'validWhen', index)
      this.encoding.solver.addClause([-on, -inPlay, -this.encoding.truth(check.expr).f])
    }
  }

  /** A required question in play is answered. One with nothing to offer stays blank: another finding speaks of that. `guard`: only where this holds. */
  private demandAnswer(question: PlannedQuestion, guard: Literal | null = null) {
    const { blank, classes, domain } = this.encoding.variable(question.place.code)
    if (
      question.required === null ||
      classes.length === 0 ||
      this.unclear.has(question.place.code) ||
      (domain.open && question.offer !== null)
    )
      return
    const wanted =
      question.required === true
        ? this.switchFor(question.place, 'required', 0)
        : this.encoding.and([
            this.switchFor(question.place, 'required', 0),
            this.rule(question.required, question.place, 'required'),
          ])
    // Where rows are taken away there may be nothing to choose: only what is on offer is demanded.
    for (const offered of this.offeredOf.get(question.place.code) ?? [this.encoding.yes])
      this.encoding.solver.addClause([
        ...(guard === null ? [] : [-guard]),
        -wanted,
        -this.inPlay(question),
        -offered,
        -blank,
      ])
  }

  /** Literals that bring with them: what the goal being asked depends on in the current section is answered where it is required. */
  answeredHere(): Literal[] {
    return this.asked.flatMap(code => {
      const question = this.model.stepOf(code)
      if (!question || question.place.section !== this.current) return []
      const known = this.demands.get(code)
      if (known !== undefined) return [known]
      const guard = this.encoding.solver.newVariable()
      this.demands.set(code, guard)
      this.demandAnswer(question, guard)
      return [guard]
    })
  }

  /** Whether some state fulfils the literals. */
  decide(goal: readonly Literal[]): Outcome {
    return this.solve([...this.allSwitches(), ...goal])
  }

  /** Clauses and arithmetic in turn: a model of the clauses for which there are no numbers is ruled out, and the next one asked for. */
  private solve(assumptions: readonly Literal[], among: (() => readonly Literal[]) | null = null): Outcome {
    const { solver, arithmetic } = this.encoding
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const outcome = solver.solve(assumptions, CONFLICT_LIMIT, among?.() ?? null)
      if (outcome !== 'satisfiable' || !arithmetic.isUsed) return outcome
      const checked = arithmetic.check()
      if (checked.is === 'consistent') return outcome
      if (checked.is === 'limit') return 'limit'
      for (const clause of checked.clauses) solver.addClause(clause)
    }
    return 'limit'
  }

  /**
   * The same, deciding only what the goal asked last depends on: the rest of a state can always be completed. Once these are assigned,
   * every rule that matters follows from them. The model is not one of the whole space.
   */
  decideAsked(goal: readonly Literal[]): Outcome {
    return this.solve([...this.allSwitches(), ...goal], () => {
      const free = this.encoding.undetermined()
      return free.length > 0 ? [...this.among, ...free] : this.among
    })
  }

  allSwitches = (): readonly Literal[] => this.switchLiterals

  /**
   * After an impossible goal: a smallest set of rules that make it so (none can be left out).
   * Starts from the solver's final conflict and tries to do without each rule in turn.
   */
  conflictOf(goal: readonly Literal[]): ConflictPart[] {
    const { solver } = this.encoding
    const bySwitch = new Map([...this.switches.values()].map(s => [s.literal, s.part] as const))
    let core = solver.conflict.filter(l => bySwitch.has(l))
    for (const literal of [...core]) {
      if (!core.includes(literal)) continue
      const without = core.filter(l => l !== literal)
      if (this.solve([...without, ...goal]) === 'unsatisfiable')
        core = solver.conflict.filter(l => without.includes(l))
    }
    const order = new Map<string, number>(this.model.plan.places.map(p => [p.address, p.order]))
    return core
      .flatMap(l => bySwitch.get(l) ?? [])
      .sort(
        (a, b) =>
          (order.get(a.address) ?? 0) - (order.get(b.address) ?? 0) ||
          a.index - b.index ||
          (a.kind < b.kind ? -1 : 1),
      )
  }

  answers = (): Answers => exampleOf(this.model, this.encoding)
}

/** What a goal about some questions rests on, made ready: its answers' literals, whether any of it is not exact, or lies in a circle. */
interface Scope {
  codes: readonly string[]
  among: readonly Literal[]
  isOpen: boolean
  isCircular: boolean
}
