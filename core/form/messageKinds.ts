import type { MessageKind } from './messages'
import type { QuestionType } from './questions'

const NUMBERS = ['notANumber', 'tooSmall', 'tooLarge'] as const
const TIMES = ['notADate', 'tooEarly', 'tooLate'] as const
/** What can be wrong with an answer, by the type of its question. */
export const MESSAGE_KINDS: Readonly<Record<QuestionType, readonly Exclude<MessageKind, 'missing'>[]>> = {
  text: ['tooShort', 'tooLong'],
  longText: ['tooShort', 'tooLong'],
  integer: NUMBERS,
  decimal: [...NUMBERS, 'tooPrecise'],
  money: [...NUMBERS, 'tooPrecise'],
  yesNo: [],
  choice: ['notOffered'],
  choices: ['notOffered', 'tooFew', 'tooMany'],
  date: TIMES,
  time: TIMES,
  dateTime: TIMES,
  email: ['notAnEmail'],
  phone: ['notAPhone'],
  url: ['notAUrl'],
  scale: [],
  grid: [],
  ranking: ['tooFew', 'tooMany'],
  file: ['tooMany'],
  signature: [],
  value: [],
  hidden: [],
}
