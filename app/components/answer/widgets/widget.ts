import type { Answer } from '#core/form/answers'
import type { Frame } from '#core/fill/fill'
import type { PlannedQuestion } from '#core/fill/planned'
import type { QuestionOf, QuestionType } from '#core/form/questions'
import type { OfferedRow } from '#core/form/rows'

/** What every widget of the respondent's page is given. It answers by `answer`, and says by `left` that the person went on. */
export interface WidgetProps<T extends QuestionType = QuestionType> {
  id: string
  question: QuestionOf<T>
  step: PlannedQuestion
  frame: Frame
  value: Answer
  describedby: string | undefined
  labelledby: string
  invalid: boolean
  required: boolean
}
export interface WidgetEmits {
  answer: [value: Answer]
  left: []
}

/** The attributes that tell assistive technology about a field. */
export const fieldAttributes = (p: Pick<WidgetProps, 'describedby' | 'invalid' | 'required'>) => ({
  'aria-describedby': p.describedby,
  'aria-invalid': p.invalid || undefined,
  'aria-required': p.required || undefined,
})

/** The label of a choice, with how often it can still be chosen where that is limited. */
export const withPlaces = ({ label, places }: OfferedRow): string =>
  places === undefined ? label : `${label} (${places} left)`

/** How many rows a choice has, those that did not travel included. */
export function rowCount(step: PlannedQuestion, frame: Frame): number {
  const { node } = step.place
  const list = 'list' in node ? frame.plan.form.lists?.find(l => l.code === node.list) : undefined
  return list?.partial ?? step.offer?.rows.size ?? 0
}
