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

export const textOf = (event: Event): string =>
  event.target instanceof HTMLInputElement ||
  event.target instanceof HTMLSelectElement ||
  event.target instanceof HTMLTextAreaElement
    ? event.target.value
    : ''

/** How a file gets to where it is kept; the rehearsal keeps none. */
export interface FileTaker {
  take: (question: string, file: File) => Promise<{ file: string; name: string; bytes: number }>
}
export const FILE_TAKER: unique symbol = Symbol('file taker')

/** Where the rows of a long list are found: not all of it travels with the page. */
export interface RowFinder {
  find: (path: string, typed: string) => Promise<{ rows: OfferedRow[]; count: number }>
  /** A row that was chosen is known to the page from then on. */
  remember: (list: string, row: OfferedRow) => void
}
export const ROW_FINDER: unique symbol = Symbol('row finder')

/** How many rows a choice has, those that did not travel included. */
export function rowCount(step: PlannedQuestion, frame: Frame): number {
  const { node } = step.place
  const list = 'list' in node ? frame.plan.form.lists?.find(l => l.code === node.list) : undefined
  return list?.partial ?? step.offer?.rows.size ?? 0
}
