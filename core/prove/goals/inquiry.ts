import type { Answers } from '../../form/answers'
import type { Step } from '../../fill/planned'
import type { Form } from '../../form/definition'
import { placeName, type Place } from '../../form/walk'
import { integrityOf, type RowProblem } from '../../lists/integrity'
import type { ConflictPart, Finding, Severity, Tally } from '../finding'
import { StateSpace } from './stateSpace'
import { Memory, Stamps } from './memory'
import { modelOf, type Model } from '../model/model'
import { randomRuns, type Evidence } from './randomRuns'
import { dayOf, smallestWitness, type WitnessGoal } from './witness'

/** A check of the prover: what it is called, how bad its findings are, and how they are found. */
export interface Check {
  /** The code of its findings. */
  code: string
  severity: Severity
  /** What it says, in plain words, for the documentation. */
  about: string
  /** A form that it speaks of, and one that is like it and in order. */
  raises: Form
  spares: Form
  /** Gives its findings one by one; null in between lets others in. */
  run: (inquiry: Inquiry) => Iterable<Finding | null>
}

/** A goal: whether some state with a section as the current one does something. */
export interface Goal extends WitnessGoal {
  /** Tells it from all other goals of the form; what it asks for beyond its place and names is part of it. */
  key: string
  /** Where it stands; null for the form as a whole. */
  at: Place | null
}

/** Looks at things one after the other, letting others in after each. */
export function* each<T>(
  things: Iterable<T>,
  look: (thing: T) => readonly Finding[],
): Generator<Finding | null> {
  for (const thing of things) {
    yield* look(thing)
    yield null
  }
}

/** What a check finds, all at once. */
export const findingsOf = (check: Check, inquiry: Inquiry): Finding[] =>
  [...check.run(inquiry)].filter(f => f !== null)

/** How a goal is decided: `aside` for an advice that is simply not given when it can't be decided, `seen` when a random run shows it. */
export interface Manner {
  aside?: boolean
  seen?: (evidence: Evidence) => boolean
}

export type Decision =
  | { is: 'possible' }
  | { is: 'impossible'; conflict: ConflictPart[] }
  | { is: 'undecided'; why: string }
  /** The goal depends on a circle, which is reported by itself. */
  | { is: 'skipped' }

/** Random runs before the solver is asked: they settle most goals, and each is an example. */
const RUNS = 16
/** So many goals that nothing is kept of are worth random runs. */
const MANY_FRESH = 100

/** One look at a form: what the checks share. */
export class Inquiry {
  readonly model: Model
  readonly tally: Tally = { rules: 0, byExample: 0, byProof: 0, undecided: 0 }
  private runs: Evidence | null = null
  /** What can never come into play, by place order; what depends on it is folded into that finding. */
  readonly impossible = new Map<number, ConflictPart[]>()
  /** What is always shown, by place order: weaker findings would repeat it. */
  readonly always = new Set<number>()
  /** The ids of checks that no answer meets. */
  readonly unmeetable = new Set<string>()
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
    return (this.rowProblems ??= integrityOf(this.form.lists ?? []))
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

  /** Whether something stands inside what can never be shown. */
  isFolded(step: Step): boolean {
    return (
      this.impossible.has(this.orderOfSection(step.place.section)) ||
      step.place.groups.some(g => this.impossible.has(g.order))
    )
  }

  /** Whether a conflict only repeats one that was found before. */
  isRepeated(conflict: readonly ConflictPart[]): boolean {
    const keys = new Set(conflict.map(partKey))
    return [...this.impossible.values()].some(
      parts => parts.length > 0 && parts.every(p => keys.has(partKey(p))),
    )
  }

  orderOfSection = (section: number): number => this.model.plan.sections[section]?.place.order ?? -1
}

const partKey = (part: ConflictPart) => `${part.address}:${part.kind}:${part.index}`

/** The goal “this section is the current one”. */
export function sectionGoal(model: Model, section: number): Goal {
  const order = model.plan.sections[section]?.place.order ?? -1
  return {
    key: `section:${model.plan.sections[section]?.place.address ?? section}`,
    at: model.plan.sections[section]?.place ?? null,
    section,
    names: [],
    literals: space => [space.sectionShown(section)],
    holds: state => state.inPlay[order] === true,
  }
}

/** A finding about a place, with the parts that most findings leave out. */
export function finding(
  check: Pick<Check, 'code' | 'severity'>,
  place: Place | null,
  sentence: string,
  more: Partial<Finding> = {},
): Finding {
  return {
    code: check.code,
    severity: check.severity,
    at: place?.code ?? null,
    address: place?.address ?? null,
    rule: null,
    sentence,
    conflict: [],
    witness: null,
    mend: null,
    ...more,
    today: dayOf(more.witness ?? null),
  }
}

/** How a place is called in a sentence: “Hull material”. */
export const called = (place: Place): string => `“${placeName(place)}”`
export const partAt = (place: Place, kind: ConflictPart['kind'] = 'place', index = 0): ConflictPart => ({
  code: place.code,
  address: place.address,
  kind,
  index,
})
