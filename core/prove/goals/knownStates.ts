import type { KnownState } from './knownState'
import type { Model } from '../model/model'
import { lacksDemanded } from './demands'
import type { WitnessGoal } from './goal'
import { problemsOf, TurnStanding } from './turnChain'

/** What a state shows, as long as it does not change. */
export class ShownBy {
  private standing: TurnStanding | null = null

  constructor(
    private readonly model: Model,
    readonly known: KnownState,
  ) {}

  /** Whether it is one of the states that a goal is about, and fulfils it. */
  shows(goal: WitnessGoal): boolean {
    return isOnWay(this.known, goal) && goal.holds(this.known.state) && this.standsFor(goal)
  }

  private standsFor(goal: WitnessGoal): boolean {
    const { model } = this
    if (model.turns.length === 0)
      return !goal.answered || !lacksDemanded(model, goal, problemsOf(this.known.state, goal.section, null))
    this.standing ??= new TurnStanding(this.model, this.known.state)
    return this.standing.standsFor(goal)
  }
}

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
  private readonly states: ShownBy[] = []

  constructor(private readonly model: Model) {}

  add(known: KnownState) {
    this.states.unshift(new ShownBy(this.model, known))
    this.states.length = Math.min(this.states.length, MOST)
  }

  /** Whether one of them shows a goal whose `holds` says all that it asks. */
  show(goal: WitnessGoal): boolean {
    const index = this.states.findIndex(known => known.shows(goal))
    const [found] = index > 0 ? this.states.splice(index, 1) : []
    if (found) this.states.unshift(found)
    return index >= 0
  }
}
