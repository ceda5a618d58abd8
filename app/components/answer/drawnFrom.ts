import { problemOf, type Frame } from '#core/fill/fill'
import { keptAnswer } from '#core/fill/keep'
import type { PlannedQuestion } from '#core/fill/planned'

/** Whether a text quotes answers. */
const quotes = (text: string | undefined) => text?.includes('{{') === true

/**
 * Whether a question is drawn from more of the answers than its own: its texts quote some, what it offers depends on some, or
 * it is worked out.
 */
function needsAllAnswers({ place: { node }, offer }: PlannedQuestion): boolean {
  if (node.type === 'value' || quotes(node.label) || ('help' in node && quotes(node.help))) return true
  return offer !== null && (offer.narrow !== null || offer.rules !== null)
}

/**
 * What a question on the respondent's page is drawn from: while none of it changes, the question stays as it was drawn. A key
 * typed into one of many then draws that one anew, not all of them.
 */
export function drawnFrom(question: PlannedQuestion, frame: Frame): unknown[] {
  const { slot, place } = question
  const problem = problemOf(frame, question)
  return [
    question,
    frame.required[slot],
    frame.locked[place.order],
    keptAnswer(frame, slot),
    problem?.kind,
    problem?.sentence,
    frame.lost.get(slot)?.join(),
    needsAllAnswers(question) ? frame : null,
  ]
}
