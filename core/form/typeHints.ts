import { QUESTION_TYPES, type QuestionType } from './questions'

/** Words in brackets behind a pasted question, or in a type column, that name its type. */
const TYPE_HINTS: Readonly<Record<QuestionType, readonly string[]>> = {
  text: ['text', 'short text'],
  longText: ['long text', 'paragraph', 'comments'],
  integer: ['number', 'whole number', 'integer'],
  decimal: ['decimal', 'decimal number'],
  money: ['money', 'amount', 'currency'],
  yesNo: ['y/n', 'y / n', 'yes/no', 'yes / no', 'yes or no', 'yes-no', 'boolean'],
  choice: ['choice', 'single choice', 'one of', 'choose one', 'drop-down', 'dropdown', 'radio'],
  choices: [
    'multiple choice',
    'many of',
    'tick all that apply',
    'choose all that apply',
    'select all that apply',
    'check all that apply',
    'checkboxes',
  ],
  date: ['date'],
  time: ['time'],
  dateTime: ['date and time'],
  email: ['e-mail', 'email'],
  phone: ['phone', 'telephone', 'tel'],
  url: ['web address', 'website', 'url'],
  scale: ['scale', 'rating'],
  grid: [],
  ranking: ['ranking'],
  file: ['file', 'upload', 'attachment'],
  signature: ['signature'],
  value: [],
  hidden: [],
}
const typeOfHint = new Map<string, QuestionType>()
for (const type of QUESTION_TYPES) for (const hint of TYPE_HINTS[type]) typeOfHint.set(hint, type)

/** The question type that words name (“yes/no”, “drop-down”), in any case; undefined when they name none. */
export const typeNamed = (words: string): QuestionType | undefined =>
  typeOfHint.get(words.toLowerCase().replaceAll(/\s+/g, ' '))
