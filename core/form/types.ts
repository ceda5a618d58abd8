import { BOOLEAN, DATE, NUMBER, TEXT, type ValueType } from '../expressions/types'
import type { Form, QuestionOf, QuestionType } from './definition'
import { rowsOf } from './walk'

interface TypeEntry<T extends QuestionType> {
  /** The type in words, as the script and the type menu show it. */
  words: string
  /** The type of its answers in rules. */
  valueType: (question: QuestionOf<T>, form: Form) => ValueType
  /** What the script shows in the type column. */
  brief: (question: QuestionOf<T>, form: Form) => string
}

const withUnit = (words: string, unit: string | undefined) => unit ? `${words}, ${unit}` : words

/** The question types in the definition layer; a new type is a new entry. */
export const TYPES: { readonly [T in QuestionType]: TypeEntry<T> } = {
  text: { words: 'short text', valueType: () => TEXT, brief: () => 'short text' },
  integer: { words: 'whole number', valueType: () => NUMBER, brief: q => withUnit('whole number', q.unit) },
  decimal: { words: 'decimal number', valueType: () => NUMBER, brief: q => withUnit('decimal', q.unit) },
  yesNo: { words: 'yes / no', valueType: () => BOOLEAN, brief: () => 'yes / no' },
  choice: {
    words: 'single choice',
    valueType: (q, form) => ({ kind: 'code', choices: new Map((rowsOf(form, q) ?? []).map(row => [row.code, row.label])) }),
    brief: (q, form) => `one of ${rowsOf(form, q)?.length ?? '?'}`,
  },
  date: { words: 'date', valueType: () => DATE, brief: () => 'date' },
}

/** The type of a question's answers in rules. */
export const valueTypeOf = <T extends QuestionType>(question: QuestionOf<T>, form: Form): ValueType => TYPES[question.type].valueType(question, form)
/** The type of a question in a few words, for the script. */
export const typeBrief = <T extends QuestionType>(question: QuestionOf<T>, form: Form): string => TYPES[question.type].brief(question, form)
