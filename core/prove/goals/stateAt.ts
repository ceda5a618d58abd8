import { fill, type Filled } from '../../fill/fill'
import { wayOut } from '../../fill/wayOut'
import type { Answers } from '../../form/answers'
import type { Model } from '../model/model'
import { lacksDemanded } from './demands'
import type { WitnessGoal } from './goal'
import { problemsOf, TurnStanding } from './turnChain'

/**
 * The state of a set of answers whose current section is that of a goal: everything before it is complete. The number of sections means the
 * finish. Null when the answers are no such state.
 */
export function stateAt(model: Model, answers: Answers, goal: WitnessGoal, today: string): Filled | null {
  const { section, leaving = false, reaching = false } = goal
  const state = fill(model.plan, answers, today)
  const isThere =
    section >= model.plan.sections.length || state.path.includes(leaving ? section - 1 : section)
  if (!isThere && !(reaching && leadsTo(state, section))) return null
  if (model.turns.length > 0) return new TurnStanding(model, state).standsFor(goal) ? state : null
  const before = state.path.filter(index => index < section)
  if (before.some(index => problemsOf(state, index, null).length > 0)) return null
  return goal.answered && lacksDemanded(model, goal, problemsOf(state, section, null)) ? null : state
}

/** Whether the way of a response comes to a section, to enter it or to pass it over. */
function leadsTo(state: Filled, section: number): boolean {
  const before = state.path.findLast(index => index < section)
  const left = before === undefined ? undefined : state.plan.sections[before]
  if (before === undefined || !left) return true
  return (wayOut(left, state)?.target ?? before + 1) <= section
}
