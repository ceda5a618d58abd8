import { BOOLEAN, DATE, DATE_TIME, NUMBER, TEXT, TIME, UNKNOWN, type Members, type ValueType } from '../expressions/types'
import type { ChoiceType, Form, QuestionOf, QuestionType } from './definition'
import { optionsOf, WRITE_IN } from './walk'

/** What the type of a calculated value comes from: the type check of its expression. */
export type TypeOfExpression = (text: string) => ValueType

interface TypeEntry<T extends QuestionType> {
  /** The type in words, as the script and the type menu show it. */
  words: string
  /** The type of its answers in rules. */
  valueType: (question: QuestionOf<T>, form: Form, typeOf: TypeOfExpression) => ValueType
  /** What the script shows in the type column. */
  brief: (question: QuestionOf<T>, form: Form) => string
}

const withUnit = (words: string, unit: string | undefined) => unit ? `${words}, ${unit}` : words
const simple = <T extends QuestionType>(words: string, type: ValueType): TypeEntry<T> => ({ words, valueType: () => type, brief: () => words })
const HELD = { text: TEXT, number: NUMBER, yesNo: BOOLEAN, date: DATE } as const

const choicesOf = (q: QuestionOf<ChoiceType>, form: Form) => new Map([...(optionsOf(form, q) ?? []).map(row => [row.code, row.label] as const), ...q.writeIn ? [[WRITE_IN, writeInLabel(q)] as const] : []])
/** The words of the choice that asks for its own text. */
export const writeInLabel = (q: QuestionOf<ChoiceType>): string => typeof q.writeIn === 'string' ? q.writeIn : 'Other, please say'

const COLUMN_TYPES: Record<string, ValueType> = { number: NUMBER, boolean: BOOLEAN }

/** What a path reaches through a chosen code: its label, points and price, the row's columns, the text written in. */
function choiceMembers(q: QuestionOf<ChoiceType>, form: Form): Members {
  const rows = optionsOf(form, q) ?? []
  const members = new Map<string, ValueType>([['label', TEXT]])
  if (rows.some(r => typeof r.points === 'number')) members.set('points', NUMBER)
  if (rows.some(r => typeof r.price === 'number')) members.set('price', NUMBER)
  if (q.writeIn) members.set('other', TEXT)
  const columns = form.lists?.find(l => l.code === q.list)?.columns ?? []
  if (columns.length > 0) members.set('row', { kind: 'context', members: new Map(columns.map(c => [c, columnType(rows, c)])) })
  return members
}

/** The type of a column: that of its cells where they agree, else text. */
export function columnType(rows: readonly Record<string, unknown>[], column: string): ValueType {
  const kinds = new Set(rows.map(r => r[column]).filter(v => v !== null && v !== undefined && v !== '').map(v => typeof v))
  const [only = 'string'] = kinds
  return kinds.size > 1 ? TEXT : COLUMN_TYPES[only] ?? TEXT
}

/** Through several chosen codes a path reaches a list; the text written in stays one. */
const ofMany = (members: Members): Members => new Map([...members].map(([name, type]): [string, ValueType] => [name, name === 'other' ? type : { kind: 'list', of: type }]))

/** The question types in the definition layer; a new type is a new entry. */
export const TYPES: { readonly [T in QuestionType]: TypeEntry<T> } = {
  text: simple('short text', TEXT),
  longText: simple('long text', TEXT),
  integer: { words: 'whole number', valueType: () => NUMBER, brief: q => withUnit('whole number', q.unit) },
  decimal: { words: 'decimal number', valueType: () => NUMBER, brief: q => withUnit('decimal', q.unit) },
  money: { words: 'money', valueType: () => NUMBER, brief: q => `money, ${q.currency}` },
  yesNo: simple('yes / no', BOOLEAN),
  choice: {
    words: 'single choice',
    valueType: (q, form) => ({ kind: 'code', choices: choicesOf(q, form), members: choiceMembers(q, form) }),
    brief: (q, form) => `one of ${optionsOf(form, q)?.length ?? '?'}`,
  },
  choices: {
    words: 'multiple choice',
    valueType: (q, form) => ({ kind: 'list', of: { kind: 'code', choices: choicesOf(q, form) }, members: ofMany(choiceMembers(q, form)) }),
    brief: (q, form) => `many of ${optionsOf(form, q)?.length ?? '?'}`,
  },
  date: simple('date', DATE),
  time: simple('time', TIME),
  dateTime: simple('date and time', DATE_TIME),
  email: simple('e-mail', TEXT),
  phone: simple('phone', TEXT),
  url: simple('web address', TEXT),
  scale: { words: 'rating scale', valueType: () => NUMBER, brief: q => `scale ${q.min} to ${q.max}` },
  grid: {
    words: 'rating grid',
    valueType: (q) => {
      const cell: ValueType = { kind: 'code', choices: new Map(q.options.map(o => [o.code, o.label])) }
      const members = new Map<string, ValueType>(q.rows.map(r => [r.code, cell]))
      if (q.options.some(o => o.points !== undefined)) members.set('points', { kind: 'list', of: NUMBER })
      return { kind: 'context', members }
    },
    brief: q => `grid ${q.rows.length} × ${q.options.length}`,
  },
  ranking: { words: 'ranking', valueType: q => ({ kind: 'list', of: { kind: 'code', choices: new Map(q.options.map(o => [o.code, o.label])) } }), brief: q => `ranking of ${q.options.length}` },
  file: { words: 'file', valueType: () => ({ kind: 'list', of: TEXT }), brief: q => q.most && q.most > 1 ? `up to ${q.most} files` : 'file' },
  signature: simple('signature', BOOLEAN),
  value: { words: 'calculated value', valueType: (q, _, typeOf) => typeOf(q.value), brief: q => withUnit('calculated', q.currency ?? q.unit) },
  hidden: { words: 'hidden value', valueType: q => HELD[q.holds ?? 'text'], brief: () => 'hidden' },
}

/** The type of a question's answers in rules. Without `typeOf`, a calculated value is of unknown type. */
export const valueTypeOf = <T extends QuestionType>(question: QuestionOf<T>, form: Form, typeOf: TypeOfExpression = () => UNKNOWN): ValueType => TYPES[question.type].valueType(question, form, typeOf)
/** The type of a question in a few words, for the script. */
export const typeBrief = <T extends QuestionType>(question: QuestionOf<T>, form: Form): string => TYPES[question.type].brief(question, form)
