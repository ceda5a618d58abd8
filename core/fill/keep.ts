import { answerOf } from './answers'
import type { Answer, Answers } from '../form/answers'
import type { Filled, Frame } from './frame'
import { isQuestion, isRepeating } from './steps'
import type { Step } from './planned'

type Given = Exclude<Answer, null>

/**
 * The answers that count: those in play and not blank, in the order of the form. What is not in play is left out, and calculated values
 * are not answers. A question with a default that is left blank is kept as null, so that the default does not come back.
 */
export function answersInPlay(filled: Filled): Answers {
  const kept: Record<string, Answer> = {}
  for (const index of filled.path)
    Object.assign(kept, keptIn(filled.plan.sections[index]?.steps ?? [], filled))
  return kept
}

function keptIn(steps: readonly Step[], frame: Frame): Record<string, Answer> {
  const kept: Record<string, Answer> = {}
  for (const step of [...steps].sort((a, b) => a.place.order - b.place.order)) {
    const { code, order } = step.place
    if (frame.inPlay[order] !== true) continue
    if (isRepeating(step)) {
      const entries = (frame.entries.get(order) ?? []).map(entry => keptIn(step.steps, entry))
      if (entries.length > 0 && frame.plan.groups.get(code) === step) kept[code] = entries
      continue
    }
    if (!isQuestion(step) || step.value !== null || frame.plan.byCode.get(code) !== step) continue
    const answer = keptAnswer(frame, step.slot)
    if (answer !== null) kept[code] = answer
    else if (step.default !== null && frame.locked[order] !== true) kept[code] = null
  }
  return kept
}

/** The answer of a question as it is kept; null for blank, or for one that is wrong. */
export function keptAnswer(frame: Frame, slot: number): Given | null {
  if (frame.wrong.has(slot)) return null
  return frame.given.get(slot) ?? answerOf(frame.values[slot] ?? null)
}
