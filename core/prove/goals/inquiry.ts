import { type Goal, type Manner, type Decision, sectionGoal } from './goal'
import { Facts } from './facts'
import type { Answers } from '../../form/answers'
import type { Form } from '../../form/definition'
import { checkIntegrity, type RowProblem } from '../../lists/integrity'
import type { Tally } from '../finding'
import { StateSpace } from './stateSpace'
import { Memory, Stamps } from './memory'
import { modelOf, type Model } from '../model/model'
import { randomRuns, type Evidence } from './randomRuns'
import { smallestWitness } from './witness'

/** Random runs before the solver is asked: they settle most goals, and each is an example. */
const RUNS = 16
/** So many goals that nothing is kept of are worth random runs. */
const MANY_FRESH = 100

/** One look at a form: what the checks share. */
export class Inquiry {
  readonly model: Model
  readonly tally: Tally = { rules: 0, byExample: 0, byProof: 0, undecided: 0 }
  private runs: Evidence | null = null
  /** What checks have established, for others to rest on. */
  readonly facts = new Facts()
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
    memory.begin()
    this.isFirst = memory.decisions.size === 0
    this.stamps = new Stamps(this.model, memory)
  }

  /** What random runs have shown. In a later proof little is new: they are only worth their time when much is. */
  private evidence(): Evidence | null {
    if (!this.isFirst && this.fresh < MANY_FRESH) return null
    return (this.runs ??= randomRuns(this.model, RUNS, this.today))
  }

  private rowProblems: RowProblem[] | null = null
  /** What is wrong with the rows of the form's lists. */
  get integrity(): RowProblem[] {
    return (this.rowProblems ??= checkIntegrity(this.form.lists ?? []))
  }

  /** Decides a goal: possible with an example, impossible with the rules that make it so, or honestly neither. */
  decide(goal: Goal, manner: Manner = {}): Decision {
    const [stamp, whole] = [this.stamps.of(goal), this.stamps.before(goal)]
    const kept = this.memory.decisions.get(goal.key)
    if (kept?.stamp === stamp && (!kept.isOpen || kept.whole === whole))
      return this.counted(kept.decision, manner)
    this.fresh += 1
    const { decision, isOpen } = this.found(goal, manner)
    this.memory.decisions.set(goal.key, { stamp, whole, decision, isOpen })
    return this.counted(decision, manner)
  }

  private counted(decision: Decision, { aside }: Manner): Decision {
    if (decision.is === 'possible') this.tally.byExample += 1
    if (decision.is === 'impossible') this.tally.byProof += 1
    if (decision.is === 'undecided' && !aside) this.tally.undecided += 1
    return decision
  }

  private found(goal: Goal, { seen }: Manner): { decision: Decision; isOpen: boolean } {
    const evidence = seen ? this.evidence() : null
    if (evidence && seen?.(evidence)) return { decision: { is: 'possible' }, isOpen: false }
    const space = this.spaceAt(goal.section)
    const { literals, isOpen, isCircular } = space.ask(goal.names, goal.literals)
    if (isCircular) return { decision: { is: 'skipped' }, isOpen: false }
    const outcome = space.decideAsked(literals)
    if (outcome === 'unsatisfiable')
      return { decision: { is: 'impossible', conflict: space.conflictOf(literals) }, isOpen: false }
    if (outcome === 'limit')
      return { decision: { is: 'undecided', why: 'the limit of the solver was met' }, isOpen }
    if (isOpen && this.witness(goal) === null)
      return {
        decision: {
          is: 'undecided',
          why: 'it rests on something that is not decided exactly, such as a function that makes texts, or more entries than are told apart',
        },
        isOpen,
      }
    return { decision: { is: 'possible' }, isOpen }
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
    const answers = smallestWitness(this.model, goal, this.today)
    this.memory.witnesses.set(goal.key, { stamp, whole, answers })
    return answers
  }

  /** The smallest set of answers with which a section is the current one; null when none leads there. */
  wayTo(section: number): Answers | null {
    return this.witness(sectionGoal(this.model, section))
  }
}
