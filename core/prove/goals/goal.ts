import type { Filled } from '../../fill/frame'
import type { Step } from '../../fill/planned'
import type { Place } from '../../form/walk'
import type { Model } from '../model/model'
import type { Literal } from '../solver/literal'
import type { ConflictPart } from '../finding'
import { namesAround } from './dependencyClosure'
import type { Evidence } from './randomRuns'
import type { Standing } from './standing'
import type { StateSpace } from './stateSpace'

/** A goal about the states in which a section is the current one. */
export interface WitnessGoal extends Standing {
  names: readonly string[]
  literals: (space: StateSpace) => Literal[]
  /** What the evaluator must say of the replayed state. */
  holds: (state: Filled) => boolean
}

/** A goal: whether some state with a section as the current one does something. */
export interface Goal extends WitnessGoal {
  /** Tells it from all other goals of the form; what it asks for beyond its place and names is part of it. */
  key: string
  /** Where it stands; null for the form as a whole. */
  at: Place | null
  /** `holds` says all that the literals say: any state of its section in which it holds is an example. */
  isExact?: true
}

/**
 * How a goal is decided: `aside` for an advice that is simply not given when it can't be decided, `onlyProof` where nothing is said of what
 * is possible, so that no example is looked for, `withoutConflict` where nobody asks which rules make it impossible, `effort` the share of
 * the solver's limits that it is worth, `seen` when a random run
 * shows it.
 */
export interface Manner {
  aside?: boolean
  onlyProof?: boolean
  withoutConflict?: boolean
  effort?: number
  seen?: (evidence: Evidence) => boolean
}

export type Decision =
  | { is: 'possible' }
  | { is: 'impossible'; conflict: ConflictPart[] }
  | { is: 'undecided'; why: string }
  /** The goal depends on a circle, which is reported by itself. */
  | { is: 'skipped' }

/** The goal “this section is the current one”. */
export function sectionGoal(model: Model, section: number): Goal {
  const order = model.plan.sections[section]?.place.order ?? -1
  return {
    key: `section:${model.plan.sections[section]?.place.address ?? section}`,
    at: model.plan.sections[section]?.place ?? null,
    section,
    names: [],
    literals: space => [space.sectionShown(section)],
    isExact: true,
    holds: state => state.inPlay[order] === true,
  }
}

/** The goal “this is in play”. */
export const shownGoal = (model: Model, step: Step): Goal => ({
  key: `shown:${step.place.address}`,
  at: step.place,
  section: step.place.section,
  names: namesAround(model, step),
  literals: space => [space.inPlay(step)],
  isExact: true,
  holds: state => state.inPlay[step.place.order] === true,
})
