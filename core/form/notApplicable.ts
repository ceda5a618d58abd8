import { isRecord, type Answer } from './answers'
import type { Question, QuestionOf } from './questions'

/** The code under which a row of a grid is answered that does not apply. */
const NOT_APPLICABLE = 'not_applicable'
/** The answer to a scale that does not apply: rules see blank, and nothing is missing. */
export const DOES_NOT_APPLY = { doesNotApply: true } as const

/** Whether an answer says that the question does not apply. */
export const saysNotApplicable = (answer: Answer | undefined): boolean =>
  answer !== undefined && isRecord(answer) && answer.doesNotApply === true && Object.keys(answer).length === 1

/** Whether a question can be answered by saying that it does not apply. */
export const mayNotApply = (question: Question): question is QuestionOf<'scale'> =>
  question.type === 'scale' && question.notApplicable !== undefined

/** What the choice says. */
export const notApplicableLabel = ({ notApplicable }: QuestionOf<'scale' | 'grid'>): string =>
  typeof notApplicable === 'string' ? notApplicable : 'Doesn’t apply'

type Step = QuestionOf<'grid'>['options'][number]
/** What each row of a grid can be answered with: the steps of its scale, and that it does not apply. */
export function gridSteps(question: QuestionOf<'grid'>): readonly Step[] {
  const { options, notApplicable } = question
  if (notApplicable === undefined || options.some(o => o.code === NOT_APPLICABLE)) return options
  return [...options, { code: NOT_APPLICABLE, label: notApplicableLabel(question) }]
}
