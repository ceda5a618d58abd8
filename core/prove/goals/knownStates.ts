import type { KnownState } from './knownState'
import type { Model } from '../model/model'
import type { WitnessGoal } from './goal'
import { standsInTurns } from './turnChain'

/** Whether a state is one of those that a goal is about. */
export const standsAt = (model: Model, known: KnownState, goal: WitnessGoal): boolean =>
  isOnWay(known, goal) && (model.turns.length === 0 || standsInTurns(model, known.state, goal))

function isOnWay(
  { state, current, passed }: KnownState,
  { section, leaving, reaching }: WitnessGoal,
): boolean {
  if (leaving) return section - 1 < current && state.path.includes(section - 1)
  if (section > current) return false
  if (section === state.plan.sections.length) return true
  return state.path.includes(section) || (reaching === true && passed.has(section))
}

/** So many are looked through for a goal. */
const MOST = 40

/** States that the evaluator has been in: each may be the example of further goals. The one that was last is tried first. */
export class KnownStates {
  private readonly states: KnownState[] = []

  constructor(private readonly model: Model) {}

  add(known: KnownState) {
    this.states.unshift(known)
    this.states.length = Math.min(this.states.length, MOST)
  }

  /** Whether one of them shows a goal whose `holds` says all that it asks. */
  show(goal: WitnessGoal): boolean {
    const index = this.states.findIndex(known => standsAt(this.model, known, goal) && goal.holds(known.state))
    const [found] = index > 0 ? this.states.splice(index, 1) : []
    if (found) this.states.unshift(found)
    return index >= 0
  }
}
