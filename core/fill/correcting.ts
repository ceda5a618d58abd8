import type { Answers } from '../form/answers'
import type { QuestionType } from '../form/questions'
import { allProblems, type AnswerProblem, type Filled } from './fill'

/** What is not corrected by hand: what is worked out, what came with a link, and what was given as a file or drawn. */
export const NOT_CORRECTED: ReadonlySet<QuestionType> = new Set(['value', 'hidden', 'file', 'signature'])

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
