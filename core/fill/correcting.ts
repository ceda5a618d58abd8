import type { Answers } from '../form/answers'
import type { QuestionType } from '../form/questions'
import type { Plan } from './planned'
import { allProblems, type AnswerProblem, type Filled } from './fill'

/** What is not corrected by hand: what is worked out, what came with a link, and what was given as a file or drawn. */
export const NOT_CORRECTED: ReadonlySet<QuestionType> = new Set(['value', 'hidden', 'file', 'signature'])

/** The codes of answers that no correction changes: of such questions, of those inside entries, which are corrected as a group, and of none. */
export const listUncorrectable = ({ byCode, groups }: Plan, changes: Answers): string[] =>
  Object.keys(changes).filter(code => {
    const place = byCode.get(code)?.place
    return place ? NOT_CORRECTED.has(place.node.type) || place.entryOf !== null : !groups.has(code)
  })

/** Answers with some of them others; null takes one away. */
export function withChanges(answers: Answers, changes: Answers): Answers {
  const all = Object.entries({ ...answers, ...changes })
  return Object.fromEntries(all.filter(([, answer]) => answer !== null))
}

/** What does not fit in a response that fitted before a change: what was let through once may stay as it is. */
export function newProblems(before: Filled, after: Filled): AnswerProblem[] {
  const keyOf = ({ path, sentence }: AnswerProblem) => `${path} ${sentence}`
  const known = new Set(allProblems(before).map(keyOf))
  return allProblems(after).filter(problem => !known.has(keyOf(problem)))
}
