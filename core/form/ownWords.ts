import type { FormMessages } from './messages'
import type { Question } from './questions'

/** The words of a question for what can be wrong with an answer to it; where it has none, those of its form. */
export const ownWords = (question: Question, ofForm: FormMessages | undefined): FormMessages =>
  'messages' in question ? { ...ofForm, ...question.messages } : { ...ofForm }
