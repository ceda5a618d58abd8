import type { Answers } from '../fill/answers'
import type { Step } from '../fill/plan'
import type { Form } from '../form/definition'
import { placeName, type Place } from '../form/walk'
import { integrityOf, type RowProblem } from '../lists/integrity'
import type { ConflictPart, Finding, Severity, Tally } from './finding'
import { StateSpace } from './goal'
import { modelOf, type Model } from './model'
import { randomRuns, type Evidence } from './runs'
import { smallestWitness, type WitnessGoal } from './witness'

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
  run: (inquiry: Inquiry) => Finding[]
}

/** A goal: whether some state with a section as the current one does something. */
export type Goal = WitnessGoal

export type Decision =
  | { is: 'possible' }
  | { is: 'impossible', conflict: ConflictPart[] }
  | { is: 'undecided', why: string }
  /** The goal depends on a circle, which is reported by itself. */
  | { is: 'skipped' }

/** Random runs before the solver is asked: they settle most goals, and each is an example. */
const RUNS = 60

/** One look at a form: what the checks share. */
export class Inquiry {
  readonly model: Model
  readonly tally: Tally = { rules: 0, byExample: 0, byProof: 0, undecided: 0 }
  private runs: Evidence | null = null
  /** What can never come into play, by place order; what depends on it is folded into that finding. */
  readonly impossible = new Map<number, ConflictPart[]>()
  /** The ids of checks that no answer meets. */
  readonly unmeetable = new Set<string>()
  private readonly spaces = new Map<number, StateSpace>()
  private readonly witnesses = new Map<number, Answers | null>()

  constructor(readonly form: Form, readonly today: string) {
    this.model = modelOf(form, today)
    this.tally.rules = this.model.rules.length
  }

  get evidence(): Evidence {
    return this.runs ??= randomRuns(this.model, RUNS, this.today)
  }

  private rowProblems: RowProblem[] | null = null
  /** What is wrong with the rows of the form's lists. */
  get integrity(): RowProblem[] {
    return this.rowProblems ??= integrityOf(this.form.lists ?? [])
  }

  /** Decides a goal: possible with an example, impossible with the rules that make it so, or honestly neither. `aside`: for an advice that is simply not given when it can't be decided. */
  decide(goal: Goal, aside = false): Decision {
    const space = this.spaceAt(goal.section)
    const { literals, isOpen, isCircular } = space.ask(goal.names, goal.literals)
    if (isCircular) return { is: 'skipped' }
    const outcome = space.decideAsked(literals)
    if (outcome === 'unsatisfiable') {
      this.tally.byProof += 1
      return { is: 'impossible', conflict: space.conflictOf(literals) }
    }
    if (outcome === 'limit') return this.undecided('the limit of conflicts was met', aside)
    if (isOpen && smallestWitness(this.model, goal, this.today) === null) {
      return this.undecided('it rests on arithmetic between answers, on a function or on today', aside)
    }
    this.tally.byExample += 1
    return { is: 'possible' }
  }

  /** One space for each section: its goals share the way there, and what the solver learnt of it. */
  private spaceAt(section: number): StateSpace {
    const known = this.spaces.get(section)
    if (known) return known
    const made = new StateSpace(this.model, section)
    this.spaces.set(section, made)
    return made
  }

  private undecided(why: string, aside: boolean): Decision {
    if (!aside) this.tally.undecided += 1
    return { is: 'undecided', why }
  }

  noteExample() {
    this.tally.byExample += 1
  }

  witness = (goal: Goal): Answers | null => smallestWitness(this.model, goal, this.today)

  /** The smallest set of answers with which a section is the current one; null when none leads there. */
  wayTo(section: number): Answers | null {
    const known = this.witnesses.get(section)
    if (known !== undefined) return known
    const found = this.witness(sectionGoal(this.model, section)) ?? null
    this.witnesses.set(section, found)
    return found
  }

  /** Whether something stands inside what can never be shown. */
  isFolded(step: Step): boolean {
    return this.impossible.has(this.orderOfSection(step.place.section)) || step.place.groups.some(g => this.impossible.has(g.order))
  }

  /** Whether a conflict only repeats one that was found before. */
  isRepeated(conflict: readonly ConflictPart[]): boolean {
    const keys = new Set(conflict.map(partKey))
    return [...this.impossible.values()].some(parts => parts.length > 0 && parts.every(p => keys.has(partKey(p))))
  }

  orderOfSection = (section: number): number => this.model.plan.sections[section]?.place.order ?? -1
}

const partKey = (part: ConflictPart) => `${part.address}:${part.kind}:${part.index}`

/** The goal “this section is the current one”. */
export function sectionGoal(model: Model, section: number): Goal {
  const order = model.plan.sections[section]?.place.order ?? -1
  return { section, names: [], literals: space => [space.sectionShown(section)], holds: state => state.inPlay[order] === true }
}

/** A finding about a place, with the parts that most findings leave out. */
export function finding(check: Pick<Check, 'code' | 'severity'>, place: Place | null, sentence: string, more: Partial<Finding> = {}): Finding {
  return { code: check.code, severity: check.severity, at: place?.code ?? null, address: place?.address ?? null, rule: null, sentence, conflict: [], witness: null, mend: null, ...more }
}

/** How a place is called in a sentence: “Hull material”. */
export const called = (place: Place): string => `“${placeName(place)}”`
export const partAt = (place: Place, kind: ConflictPart['kind'] = 'place', index = 0): ConflictPart => ({ code: place.code, address: place.address, kind, index })
