import { framesOf } from '../fill/draw'
import type { Filled } from '../fill/frame'
import { keptAnswer } from '../fill/keep'
import type { PlannedQuestion } from '../fill/planned'
import type { Answer } from '../form/answers'
import type { FormDocument } from '../form/documents'
import { placesTold } from './seenBy'

/**
 * What a document tells of a response, by code in order: answers and what is worked out of others, in each entry. As long as this is the same, so
 * is what it says of them. A group stands for all that is asked in it.
 */
export function answersTold(filled: Filled, document: FormDocument): [string, (Answer | null)[]][] {
  const told = new Set(placesTold(filled.plan, document).map(({ code }) => code))
  return filled.plan.questions
    .filter(({ place }) => told.has(place.code) || told.has(place.entryOf?.code ?? ''))
    .map((question): [string, (Answer | null)[]] => [question.place.code, answersIn(filled, question)])
    .toSorted(([a], [b]) => (a < b ? -1 : 1))
}

/** What a question stands at, once for each entry that it is in. */
const answersIn = (filled: Filled, question: PlannedQuestion): (Answer | null)[] =>
  framesOf(filled, question).map(frame =>
    frame.inPlay[question.place.order] === true ? keptAnswer(frame, question.slot) : null,
  )
