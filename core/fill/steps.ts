import { namesIn } from '../expressions/tree'
import type { PlannedGroup, PlannedQuestion, PlannedRule, PlannedSkip, Step } from './planned'

export const isQuestion = (step: Step): step is PlannedQuestion => step.is === 'question'
export const isRepeating = (step: Step): step is PlannedGroup => step.is === 'entries'

/** The step's own expressions that decide what its value is and whether it is in play. */
export function ownRules(step: Step): PlannedRule[] {
  const rules = [step.shown, step.readOnly === true ? null : step.readOnly]
  if (isQuestion(step))
    rules.push(step.default, step.value, step.offer?.narrow ?? null, ...(step.offer?.rules ?? []))
  return rules.filter(r => r !== null)
}

/** What the skips that can pass over a step name, and the questions that they lead on from. */
export const skipNames = ({ skips }: Step): string[] => namesOfSkips(skips)

/** What some skips name, and the questions that they lead on from. */
export function namesOfSkips(skips: readonly PlannedSkip[]): string[] {
  return skips.flatMap(({ from, when, above }) => [
    from.code,
    ...[when, ...above.map(s => s.when)].flatMap(rule => (rule?.expr ? namesIn(rule.expr) : [])),
  ])
}

/** The names that those expressions and skips use, of a repeating group with all inside: it comes after what they name. */
export const namesNeeded = (step: Step): string[] => [
  ...new Set(
    [step, ...(isRepeating(step) ? step.inner : [])].flatMap(s => [
      ...ownRules(s).flatMap(r => (r.expr ? namesIn(r.expr) : [])),
      ...skipNames(s),
    ]),
  ),
]
