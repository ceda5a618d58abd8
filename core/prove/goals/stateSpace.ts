import type { PlannedRule, PlannedSkip, Step } from '../../fill/planned'
import type { Answers } from '../../form/answers'
import { namesIn, type Expr } from '../../expressions/tree'
import type { RuleKind } from '../../form/rules'
import type { Place } from '../../form/walk'
import { Encoding } from '../encode/encoding'
import { shownChain, type Model } from '../model/model'
import type { Literal, Outcome } from '../solver/literal'
import type { ConflictPart } from '../finding'
import { dependencyClosure, type DependencyClosure } from './dependencyClosure'
import { exampleOf } from './exampleAnswers'
import { InPlayLiterals } from './inPlayLiterals'
import { RuleLiterals } from './ruleLiterals'
import type { Standing } from './standing'
import { pigeonholeClause } from './allDifferent'
import { StateConstraints } from './stateConstraints'
import { TurnLiterals } from './turnLiterals'

/** Conflicts that one call of the solver may meet: the same on every machine, so the same form gets the same verdict. */
export const CONFLICT_LIMIT = 20_000
/** How often numbers may be asked for until a model has some. */
const MOST_ROUNDS = 2000

/** What is asked of a space: the states, the questions that it is about, and what has to hold. */
interface Asked extends Standing {
  names: readonly string[]
  literals: (space: StateSpace) => Literal[]
}

/**
 * The states of a form in which a section is the current one, as clauses: every section before it complete, this one filled
 * in part, later ones blank (docs/meaning.md).
 */
export class StateSpace {
  readonly encoding: Encoding
  private readonly rules: RuleLiterals
  private readonly shown: InPlayLiterals
  private readonly constraints: StateConstraints
  /** Which turns a response has gone through. */
  readonly turns: TurnLiterals
  private readonly demands = new Map<string, Literal>()
  /** What the goal being asked depends on. */
  private asked: readonly string[] = []
  private among: readonly Literal[] = []
  private readonly scopes = new Map<string, Scope>()
  /** The questions that are in it, with what they depend on. */
  private readonly included = new Set<string>()

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
    this.rules = new RuleLiterals(this.encoding)
    this.shown = new InPlayLiterals(model, this.encoding, this.rules)
    this.turns = new TurnLiterals(model, this.encoding, this.rules)
    this.constraints = new StateConstraints(model, current, this.encoding, this.rules, this.shown, this.turns)
    const closure = dependencyClosure(model, current, names)
    this.asked = closure.codes
    this.include(closure)
    for (const blocker of model.blockers) {
      const isBefore = blocker.place.section < current && !('read' in blocker)
      if (isBefore) this.constraints.checked(blocker)
    }
  }

  private include({ codes }: DependencyClosure) {
    for (const code of codes) {
      if (this.included.has(code)) continue
      this.included.add(code)
      this.constraints.constrain(code)
    }
  }

  /**
   * Makes the space ready for a goal about some questions: several goals about one section share what decides the way there.
   * @returns the goal's literals, whether they rest on something that is not exact, and whether on a circle
   */
  ask(goal: Asked): { literals: Literal[]; isOpen: boolean; isCircular: boolean } {
    const { names } = goal
    const key = [...new Set(names)].sort().join()
    const scope = this.scopes.get(key) ?? this.scopeOf(dependencyClosure(this.model, this.current, names))
    this.scopes.set(key, scope)
    this.asked = scope.codes
    this.among = scope.among
    const { result, isOpen } = this.encoding.watched(() => this.literalsOf(goal))
    return { literals: result, isOpen: isOpen || scope.isOpen, isCircular: scope.isCircular }
  }

  /** What a goal asks: its own literals, and that the state is one that it is about. */
  literalsOf = (goal: Asked): Literal[] => [
    this.turns.standing(goal, this.model.plan.sections.length),
    ...goal.literals(this),
    ...(goal.answered ? this.answeredHere() : []),
  ]

  private scopeOf(closure: DependencyClosure): Scope {
    this.include(closure)
    const among: Literal[] = [...this.turns.at]
    const { isOpen } = this.encoding.watched(() => {
      for (const code of closure.codes) {
        const { blank, classes } = this.encoding.variable(code)
        among.push(blank, ...classes.map(c => c.literal))
        const place = this.model.stepOf(code)?.place
        if (place?.entryOf && !this.model.copies.of.has(place.entryOf.code) && place.section < this.current)
          this.encoding.widen()
        if (this.constraints.isUnclear(code)) this.encoding.widen()
      }
      for (const expr of closure.exprs) this.encoding.truth(expr)
    })
    return {
      codes: closure.codes,
      among,
      isOpen,
      isCircular: closure.codes.some(code => this.model.circular.has(code)),
    }
  }

  /** Whether a question before the current section is required whatever is answered. */
  isNeeded(code: string): boolean {
    const question = this.model.stepOf(code)
    if (question?.required !== true || question.place.entryOf !== null) return false
    const { place, offer } = question
    const section = this.model.plan.sections[place.section]
    return (
      place.section < this.current &&
      this.turns.filled(place) === this.encoding.yes &&
      shownChain(this.model, question).every(s => s.shown === null && s.skips.length === 0) &&
      section?.shown === null &&
      (this.model.waypoint[place.section] ?? 0) === place.section &&
      offer?.narrow == null &&
      offer?.rules == null
    )
  }

  /** The literal “this is in play”, the section around it included. */
  inPlay = (step: Step): Literal => this.shown.inPlay(step)
  /** The literal “what stands around this is in play, and no skip passes over it”. */
  aroundShown = (step: Step): Literal => this.shown.aroundShown(step)
  /** The literal “the routes lead to this section, and its rule shows it”. */
  sectionShown = (index: number): Literal => this.shown.sectionShown(index)
  /** The literal “the routes lead to this section”; the number of sections stands for the finish. */
  reached = (index: number): Literal => this.shown.reached(index)
  /** The literal “this skip is taken”. */
  skipTaken = (skip: PlannedSkip): Literal => this.shown.taken(skip)
  /** By route of a section: the literal “leaving the section takes this one”. */
  routesTaken = (index: number): Literal[] => this.shown.routesTaken(index)
  /** “This rule is true”: the truth of its condition while its switch is on, else anything. */
  rule = (rule: Pick<PlannedRule, 'expr'> | null, place: Place, kind: RuleKind, index = 0): Literal =>
    this.rules.rule(rule, place, kind, index)
  /** By class, the literal “this is on offer now”; null where nothing is taken away, or it can't be said by conditions. */
  offered = (code: string): readonly Literal[] | null => this.constraints.offered(code)

  /** The questions that the goal asked last depends on: a model of the space decides all of them. */
  get decided(): ReadonlySet<string> {
    return new Set(this.asked)
  }

  /** The tests of which the goal asked last says something, and that the answers’ classes don’t decide. */
  openParts(): Expr[] {
    const asked = new Set(this.asked)
    return this.encoding.openParts().filter(part => {
      const names = namesIn(part)
      return names.length > 0 && names.every(name => asked.has(name))
    })
  }

  /** Literals that bring with them: what the goal being asked depends on in the current section is answered where it is required, but for one question. */
  answeredHere(except: string | null = null): Literal[] {
    return this.asked.flatMap(code => {
      const question = this.model.stepOf(code)
      if (!question || question.place.section !== this.current || code === except) return []
      const known = this.demands.get(code)
      if (known !== undefined) return [known]
      const guard = this.encoding.solver.newVariable()
      this.demands.set(code, guard)
      this.constraints.demandAnswer(question, guard)
      return [guard]
    })
  }

  /** Whether some state fulfils the literals. */
  decide(goal: readonly Literal[]): Outcome {
    return this.solve([...this.rules.allSwitches(), ...goal])
  }

  /** Clauses and arithmetic in turn: a model of the clauses for which there are no numbers is ruled out, and the next one asked for. */
  private solve(
    assumptions: readonly Literal[],
    among: (() => readonly Literal[]) | null = null,
    effort = 1,
  ): Outcome {
    const { solver, arithmetic } = this.encoding
    const crowded = pigeonholeClause(this.encoding, assumptions)
    if (crowded) solver.addClause(crowded)
    for (let round = 0; round < MOST_ROUNDS * effort; round++) {
      const outcome = solver.solve(assumptions, Math.ceil(CONFLICT_LIMIT * effort), among?.() ?? null)
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
   * every rule that matters follows from them. The model is not one of the whole space. `effort`: the share of the limits that is spent.
   */
  decideAsked(goal: readonly Literal[], effort = 1): Outcome {
    const among = () => {
      const free = this.encoding.undetermined()
      return free.length > 0 ? [...this.among, ...free] : this.among
    }
    return this.solve([...this.rules.allSwitches(), ...goal], among, effort)
  }

  /**
   * After an impossible goal: a smallest set of rules that make it so (none can be left out).
   * Of several such sets one of rules that stand around the goal's place, if there is one: the nearest reason, whatever the solver met
   * before. Starts from that, else from the solver's final conflict, and tries to do without each rule in turn.
   */
  conflictOf(goal: readonly Literal[], at: Place | null): ConflictPart[] {
    const { solver } = this.encoding
    const bySwitch = this.rules.partsBySwitch()
    let core = solver.conflict.filter(l => bySwitch.has(l))
    const near = [...bySwitch].flatMap(([l, part]) => (at && this.isAround(at, part) ? [l] : []))
    if (near.length > 0 && this.solve([...near, ...goal]) === 'unsatisfiable')
      core = solver.conflict.filter(l => near.includes(l))
    for (const literal of [...core]) {
      if (!core.includes(literal)) continue
      const without = core.filter(l => l !== literal)
      if (this.solve([...without, ...goal]) === 'unsatisfiable')
        core = solver.conflict.filter(l => without.includes(l))
    }
    return core.flatMap(l => bySwitch.get(l) ?? []).sort(this.inFormOrder)
  }

  /** Whether a rule says when a place, or what it stands in, is shown. */
  private isAround({ address, groups, section }: Place, part: ConflictPart): boolean {
    const around = [address, ...groups.map(g => g.address), this.model.plan.sections[section]?.place.address]
    return part.kind === 'shownWhen' && around.includes(part.address)
  }

  private inFormOrder = (a: ConflictPart, b: ConflictPart): number => {
    const order = (part: ConflictPart) =>
      this.model.plan.places.find(p => p.address === part.address)?.order ?? 0
    return order(a) - order(b) || a.index - b.index || (a.kind < b.kind ? -1 : 1)
  }

  /** Answers of the model that the solver found last. */
  answers = (): Answers => exampleOf(this.model, this.encoding, this.current)

  /** The same of what the goal asked last depends on. */
  answersAsked = (): Answers => exampleOf(this.model, this.encoding, this.current, this.asked)
}

/** What a goal about some questions rests on, made ready: its answers' literals, whether any of it is not exact, or lies in a circle. */
interface Scope {
  codes: readonly string[]
  among: readonly Literal[]
  isOpen: boolean
  isCircular: boolean
}
