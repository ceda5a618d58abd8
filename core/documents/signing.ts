import type { Plan } from '../fill/planned'
import type { Answer, Answers } from '../form/answers'
import type { FormDocument } from '../form/documents'
import { placesTold } from './seenBy'

/** The answers of which a document tells, by their codes in order: as long as these are the same, so is what it says of them. An answer in an entry stands for all of its group. */
export function answersTold(plan: Plan, document: FormDocument, answers: Answers): [string, Answer][] {
  const told = placesTold(plan, document).map(({ code, entryOf }) => entryOf?.code ?? code)
  return [...new Set(told)].toSorted().flatMap((code): [string, Answer][] => {
    const answer = answers[code]
    return answer === undefined ? [] : [[code, answer]]
  })
}
