import type { Answer } from '#core/fill/answers'
import type { Frame } from '#core/fill/fill'
import type { PlannedQuestion } from '#core/fill/plan'
import type { QuestionOf, QuestionType } from '#core/form/definition'

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
export interface WidgetEmits { answer: [value: Answer], left: [] }

/** The attributes that tell assistive technology about a field. */
export const fieldAttributes = (p: Pick<WidgetProps, 'describedby' | 'invalid' | 'required'>) =>
  ({ 'aria-describedby': p.describedby, 'aria-invalid': p.invalid || undefined, 'aria-required': p.required || undefined })

export const textOf = (event: Event): string =>
  event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement || event.target instanceof HTMLTextAreaElement ? event.target.value : ''

/** How a file gets to where it is kept; the rehearsal keeps none. */
export interface FileTaker { take: (question: string, file: File) => Promise<{ file: string, name: string, bytes: number }> }
export const FILE_TAKER: unique symbol = Symbol('file taker')
