import type { AnswerProblem } from '../../fill/fill'
import { parseEntryCode } from '../model/entryCodes'
import type { Model } from '../model/model'
import { dependencyClosure } from './dependencyClosure'
import type { WitnessGoal } from './goal'

const NONE: ReadonlySet<string> = new Set()
const KNOWN = new WeakMap<WitnessGoal, ReadonlySet<string>>()

/** The questions in the section of a goal that have to be answered in its states, where they are asked and required. */
function demandedBy(model: Model, goal: WitnessGoal): ReadonlySet<string> {
  if (!goal.answered) return NONE
  const known = KNOWN.get(goal)
  if (known) return known
  const { codes } = dependencyClosure(model, goal.section, goal.names)
  const demanded = new Set(
    codes.flatMap(code => {
      const isHere = model.stepOf(code)?.place.section === goal.section
      return isHere ? [parseEntryCode(code).grid ?? parseEntryCode(code).base] : []
    }),
  )
  KNOWN.set(goal, demanded)
  return demanded
}

/** Whether one of the problems of a goal's section is that something is missing which its states have. */
export const lacksDemanded = (model: Model, goal: WitnessGoal, problems: readonly AnswerProblem[]): boolean =>
  problems.some(p => p.kind === 'missing' && demandedBy(model, goal).has(p.step.place.code))
