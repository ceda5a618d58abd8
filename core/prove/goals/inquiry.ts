import { type Goal, type Manner, type Decision, sectionGoal } from './goal'
import { Facts } from './facts'
import type { Answers } from '../../form/answers'
import type { Form } from '../../form/definition'
import { checkIntegrity, type RowProblem } from '../../lists/integrity'
import type { Tally } from '../finding'
import { StateSpace } from './stateSpace'
import { Memory, Stamps, type Kept } from './memory'
import { modelOf, type Model } from '../model/model'
import { randomRuns, type Evidence } from './randomRuns'
import { cornersOf } from './corners'
import { namedTextsOf } from './namedTexts'
import { undecidedBy } from './openParts'
import type { KnownState } from './knownState'
import { KnownStates } from './knownStates'
import { reachState, type Slice } from './reachState'
import { Unconfirmed } from './unconfirmed'
import { makePlausible } from './plausibleWitness'
import { dayOf, isLongWay, onDayOf, reducedWitness, replay, smallestWitness } from './witness'

/** Random runs before the solver is asked: they settle most goals, and each is an example. */
const RUNS = 16
/** So many goals that nothing is kept of are worth random runs. */
const MANY_FRESH = 100

const POSSIBLE: Decision = { is: 'possible' }
/** What was found of a goal: whether it rests on the whole form, and whether the evaluator has still to confirm it. */
interface Found {
  decision: Decision
  isOpen: boolean
  isPending?: true
}

/** One look at a form: what the checks share. */
export class Inquiry {
  readonly model: Model
  readonly tally: Tally = { rules: 0, byExample: 0, byProof: 0, undecided: 0 }
  private runs: Evidence | null = null
  /** What checks have established, for others to rest on. */
  readonly facts = new Facts()
  private readonly states: KnownStates
  private readonly unconfirmed: Unconfirmed
  private readonly spaces = new Map<number, StateSpace>()

  private readonly stamps: Stamps
  /** Goals in this proof that nothing was kept of. */
  private fresh = 0
  private readonly isFirst: boolean

  constructor(
    readonly form: Form,
    readonly today: string,
    private readonly memory = new Memory(),
  ) {
    this.model = modelOf(form, today)
    this.tally.rules = this.model.rules.length
    this.unconfirmed = new Unconfirmed(this.model)
    this.states = new KnownStates(this.model)
    memory.begin()
    this.isFirst = memory.decisions.size === 0
    this.stamps = new Stamps(this.model, memory)
  }

  /** What random runs have shown. In a later proof little is new: they are only worth their time when much is. */
  private evidence(): Evidence | null {
    // A random run answers what no turn of its chain may fill.
    if (this.model.turns.length > 0 || (!this.isFirst && this.fresh < MANY_FRESH)) return null
    if (this.runs) return this.runs
    this.runs = randomRuns(this.model, RUNS, this.today)
    for (const end of this.runs.ends) this.states.add(end)
    return this.runs
  }

  /** What was decided and is still to be confirmed, by goal. */
  private readonly pending = new Map<string, Kept>()
  private rowProblems: RowProblem[] | null = null
  /** What is wrong with the rows of the form's lists. */
  get integrity(): RowProblem[] {
    return (this.rowProblems ??= checkIntegrity(this.form.lists ?? []))
  }

  /** Decides a goal: possible with an example, impossible with the rules that make it so, or honestly neither. */
  decide(goal: Goal, manner: Manner = {}): Decision {
    const [stamp, whole] = [this.stamps.of(goal), this.stamps.before(goal)]
    const kept = this.pending.get(goal.key) ?? this.memory.decisions.get(goal.key)
    if (kept?.stamp === stamp && (!kept.isOpen || kept.whole === whole))
      return this.counted(kept.decision, manner)
    this.fresh += 1
    const { decision, isOpen, isPending } = this.found(goal, manner)
    // What the evaluator has still to confirm is not kept for later proofs: this one may be left before it is asked.
    const decisions = isPending ? this.pending : this.memory.decisions
    decisions.set(goal.key, { stamp, whole, decision, isOpen })
    return this.counted(decision, manner)
  }

  private counted(decision: Decision, { aside }: Manner): Decision {
    // What is asked aside by exact rules has no example.
    if (decision.is === 'possible' && !aside) this.tally.byExample += 1
    if (decision.is === 'impossible') this.tally.byProof += 1
    if (decision.is === 'undecided' && !aside) this.tally.undecided += 1
    return decision
  }

  /** Whether a random run or a state that the evaluator was in shows a goal. */
  private isKnown(goal: Goal, { seen, onlyProof }: Manner): boolean {
    // What depends on a circle is skipped, whatever was seen.
    if (this.model.circular.size > 0) return false
    const evidence = seen ? this.evidence() : null
    if (evidence && seen?.(evidence)) return true
    return goal.isExact === true && !onlyProof && this.states.show(goal)
  }

  private found(goal: Goal, manner: Manner): Found {
    if (this.isKnown(goal, manner)) return { decision: POSSIBLE, isOpen: false }
    const { aside, onlyProof, withoutConflict, effort } = manner
    const space = this.spaceAt(goal.section)
    const { literals, isOpen, isCircular } = space.ask(goal)
    if (isCircular) return { decision: { is: 'skipped' }, isOpen: false }
    const outcome = space.decideAsked(literals, effort)
    if (outcome === 'unsatisfiable') {
      const conflict = withoutConflict ? [] : space.conflictOf(literals, goal.at)
      return { decision: { is: 'impossible', conflict }, isOpen: false }
    }
    if (outcome === 'limit')
      return { decision: { is: 'undecided', why: 'the limit of the solver was met' }, isOpen }
    if (onlyProof || (aside && !isOpen)) return { decision: POSSIBLE, isOpen: false }
    // The evaluator alone says what is possible. Where `holds` says all, it is asked later, of many goals at once.
    if (goal.isExact) {
      this.unconfirmed.add(goal, this.sliceOf(space))
      return { decision: POSSIBLE, isOpen: false, isPending: true }
    }
    if (this.show(goal, space)) return { decision: POSSIBLE, isOpen: false }
    return { decision: undecidedBy(space.openParts()), isOpen: true }
  }

  /** Whether the evaluator agrees with the solver. */
  private show(goal: Goal, space: StateSpace): boolean {
    const slice = this.sliceOf(space)
    const known = this.reached(goal, space, slice)
    if (known) this.states.add(known)
    return known !== null || this.witness(goal) !== null
  }

  /** A state that shows a goal, by what the solver found last, by the corners of the numbers that it chose, or by texts that tests name. */
  private reached(goal: Goal, space: StateSpace, slice: Slice): KnownState | null {
    const found = reachState(this.model, goal, slice)
    if (found) return found
    for (const variantsOf of [cornersOf, namedTextsOf])
      for (const variant of variantsOf(space, slice)) {
        const known = reachState(this.model, goal, variant)
        if (known) return known
      }
    return null
  }

  /** What the solver found last says of the answers. */
  private sliceOf = (space: StateSpace): Slice => ({
    answers: space.answersAsked(),
    decided: space.decided,
    today: space.encoding.day() ?? this.today,
    turns: space.turns.takenInModel(),
  })

  /** Answers that lead to what the solver found by the rules of the goal alone, where none of all rules replays. */
  private shownWitness(goal: Goal): Answers | null {
    const known = this.askAgain(goal)
    return known && reducedWitness(this.model, goal, known.answers, this.today)
  }

  /** A state that shows a goal, by what the solver says when it is asked once more. */
  private askAgain(goal: Goal): KnownState | null {
    const space = this.spaceAt(goal.section)
    const { literals } = space.ask(goal)
    if (space.decideAsked(literals) !== 'satisfiable') return null
    return this.reached(goal, space, this.sliceOf(space))
  }

  /**
   * Has the evaluator confirm what was found possible. What it does not agree with is undecided from then on.
   * @returns whether it agrees with everything; else the checks have to be asked again
   */
  confirm(): boolean {
    const refuted = this.unconfirmed
      .confirm()
      .filter(goal => this.askAgain(goal) === null && this.witness(goal) === null)
    for (const goal of refuted) {
      const [stamp, whole] = [this.stamps.of(goal), this.stamps.before(goal)]
      const space = this.spaceAt(goal.section)
      space.ask(goal)
      const decision = undecidedBy(space.openParts())
      this.pending.set(goal.key, { stamp, whole, decision, isOpen: true })
    }
    for (const [key, kept] of this.pending) this.memory.decisions.set(key, kept)
    this.pending.clear()
    return refuted.length === 0
  }

  /** One space for each section: its goals share the way there, and what the solver learnt of it. */
  private spaceAt(section: number): StateSpace {
    const known = this.spaces.get(section)
    if (known) return known
    const made = new StateSpace(this.model, section)
    this.spaces.set(section, made)
    return made
  }

  witness(goal: Goal): Answers | null {
    const [stamp, whole] = [this.stamps.of(goal), this.stamps.before(goal)]
    const kept = this.memory.witnesses.get(goal.key)
    if (kept?.stamp === stamp && kept.whole === whole) return kept.answers
    const answers =
      this.stillShown(goal, kept?.stamp === stamp ? kept.answers : null) ?? this.newWitness(goal)
    this.memory.witnesses.set(goal.key, { stamp, whole, answers })
    return answers
  }

  /** The smallest example, or an irreducible one, with likely values. */
  private newWitness(goal: Goal): Answers | null {
    const found = smallestWitness(this.model, goal, this.today) ?? this.shownWitness(goal)
    const day = dayOf(found) ?? this.today
    return found && onDayOf(found, makePlausible(this.model, goal, found, day))
  }

  /** An example of before an edit, where it still is one: of a long way, where none is sure to be the smallest anyway. */
  private stillShown(goal: Goal, answers: Answers | null): Answers | null {
    if (!answers || !isLongWay(this.model, goal)) return null
    return replay(this.model, goal, answers, dayOf(answers) ?? this.today)
  }

  /** The smallest set of answers with which a section is the current one; null when none leads there. */
  wayTo(section: number): Answers | null {
    return this.witness(sectionGoal(this.model, section))
  }
}
