import { namesIn } from '../expressions/tree'
import type { PlannedGroup, PlannedQuestion, PlannedRule, Step } from './planned'

export const isQuestion = (step: Step): step is PlannedQuestion => step.is === 'question'
export const isRepeating = (step: Step): step is PlannedGroup => step.is === 'entries'

/** The step's own expressions that decide what its value is and whether it is in play. */
export function ownRules(step: Step): PlannedRule[] {
  const rules = [step.shown, step.readOnly === true ? null : step.readOnly]
  if (isQuestion(step))
    rules.push(step.default, step.value, step.offer?.narrow ?? null, ...(step.offer?.rules ?? []))
  return rules.filter(r => r !== null)
}

/** The names that those expressions use, of a repeating group with all inside: it comes after what they name. */
export const namesNeeded = (step: Step): string[] => [
  ...new Set(
    [step, ...(isRepeating(step) ? step.inner : [])]
      .flatMap(ownRules)
      .flatMap(r => (r.expr ? namesIn(r.expr) : [])),
  ),
]
