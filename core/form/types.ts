import {
  BOOLEAN,
  DATE,
  DATE_TIME,
  NUMBER,
  TEXT,
  TIME,
  UNKNOWN,
  type Choices,
  type Members,
  type ValueType,
} from '../expressions/types'
import type { Form } from './definition'
import type { ChoiceList, ColumnKind } from './choiceLists'
import type { ChoiceType, QuestionOf, QuestionType } from './questions'
import { CURRENCY_MEMBER, currenciesOf } from './currencies'
import { gridSteps } from './notApplicable'
import { labelsByCode, optionsOf, WRITE_IN, type OfferedRow } from './rows'

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

const withUnit = (words: string, unit: string | undefined) => (unit ? `${words}, ${unit}` : words)
const simple = <T extends QuestionType>(words: string, type: ValueType): TypeEntry<T> => ({
  words,
  valueType: () => type,
  brief: () => words,
})
/** The type in rules of what a column or a hidden value holds. */
export const HELD = { text: TEXT, number: NUMBER, yesNo: BOOLEAN, date: DATE } as const

const NO_ROWS: readonly OfferedRow[] = []
function choicesOf(q: QuestionOf<ChoiceType>, form: Form): Choices {
  const choices = labelsByCode(optionsOf(form, q) ?? NO_ROWS)
  return q.writeIn ? new Map([...choices, [WRITE_IN, writeInLabel(q)]]) : choices
}
/** The words of the choice that asks for its own text. */
export const writeInLabel = (q: QuestionOf<ChoiceType>): string =>
  typeof q.writeIn === 'string' ? q.writeIn : 'Other, please say'

const CELL_TYPES: Record<string, ColumnKind> = { number: 'number', boolean: 'yesNo' }

/** What a path reaches through a chosen code: its label, points and price, the row's columns, the text written in. */
function choiceMembers(q: QuestionOf<ChoiceType>, form: Form): Members {
  const rows = optionsOf(form, q) ?? []
  const members = new Map<string, ValueType>([['label', TEXT]])
  if (rows.some(r => typeof r.points === 'number')) members.set('points', NUMBER)
  if (rows.some(r => typeof r.price === 'number')) members.set('price', NUMBER)
  if (q.writeIn) members.set('other', TEXT)
  const list = form.lists?.find(l => l.code === q.list)
  const columns = list ? columnsOf(list) : []
  if (columns.length > 0)
    members.set('row', { kind: 'context', members: new Map(columns.map(c => [c.code, HELD[c.type]])) })
  return members
}

/** A column of a list, with what it is called and holds. `given`: the type was said, not told by the cells. */
export interface ListColumn {
  code: string
  label: string
  type: ColumnKind
  given: boolean
}

const COLUMNS = new WeakMap<ChoiceList, readonly ListColumn[]>()
/** The columns of a list; what a column holds is what the list says, else what its cells agree on, else text. */
export function columnsOf(list: ChoiceList): readonly ListColumn[] {
  const known = COLUMNS.get(list)
  if (known) return known
  const columns = (list.columns ?? []).map((column): ListColumn => {
    const { code, label, type } =
      typeof column === 'string' ? { code: column, label: undefined, type: undefined } : column
    return { code, label: label ?? code, type: type ?? cellType(list.rows, code), given: type !== undefined }
  })
  COLUMNS.set(list, columns)
  return columns
}

/** What the cells of a column agree on. */
function cellType(rows: readonly Record<string, unknown>[], column: string): ColumnKind {
  let found: string | null = null
  for (const row of rows) {
    const cell = row[column]
    if (cell === null || cell === undefined || cell === '') continue
    if (found !== null && found !== typeof cell) return 'text'
    found = typeof cell
  }
  return CELL_TYPES[found ?? ''] ?? 'text'
}

/** Through several chosen codes a path reaches a list; the text written in stays one. */
const ofMany = (members: Members): Members =>
  new Map(
    [...members].map(([name, type]): [string, ValueType] => [
      name,
      name === 'other' ? type : { kind: 'list', of: type },
    ]),
  )

/** Currencies in a few words. */
const fewCurrencies = (codes: readonly string[]) =>
  codes.length > 2 ? `${codes.length} currencies` : codes.join(' or ')

/** What a path reaches of an amount in one of several currencies: which it is, and the amount in each. */
function amountMembers(q: QuestionOf<'money'>): Members {
  const currencies = currenciesOf(q)
  const choices = new Map(currencies.map(c => [c, c]))
  return new Map<string, ValueType>([
    [CURRENCY_MEMBER, { kind: 'code', choices }],
    ...currencies.map((c): [string, ValueType] => [c, NUMBER]),
  ])
}

/** The question types in the definition layer; a new type is a new entry. */
export const TYPES: { readonly [T in QuestionType]: TypeEntry<T> } = {
  text: simple('short text', TEXT),
  longText: simple('long text', TEXT),
  integer: { words: 'whole number', valueType: () => NUMBER, brief: q => withUnit('whole number', q.unit) },
  decimal: { words: 'decimal number', valueType: () => NUMBER, brief: q => withUnit('decimal', q.unit) },
  money: {
    words: 'money',
    valueType: q => (q.currencies ? { kind: 'context', members: amountMembers(q) } : NUMBER),
    brief: q => `money, ${fewCurrencies(currenciesOf(q))}`,
  },
  yesNo: simple('yes / no', BOOLEAN),
  choice: {
    words: 'single choice',
    valueType: (q, form) => ({ kind: 'code', choices: choicesOf(q, form), members: choiceMembers(q, form) }),
    brief: (q, form) => `one of ${optionsOf(form, q)?.length ?? '?'}`,
  },
  choices: {
    words: 'multiple choice',
    valueType: (q, form) => ({
      kind: 'list',
      of: { kind: 'code', choices: choicesOf(q, form) },
      members: ofMany(choiceMembers(q, form)),
    }),
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
    valueType: q => {
      const choices = new Map(gridSteps(q).map(o => [o.code, o.label]))
      const cell: ValueType = { kind: 'code', choices }
      const members = new Map<string, ValueType>(q.rows.map(r => [r.code, cell]))
      if (q.options.some(o => o.points !== undefined)) members.set('points', { kind: 'list', of: NUMBER })
      return { kind: 'context', members }
    },
    brief: q => `grid ${q.rows.length} × ${q.options.length}`,
  },
  ranking: {
    words: 'ranking',
    valueType: q => ({
      kind: 'list',
      of: { kind: 'code', choices: new Map(q.options.map(o => [o.code, o.label])) },
    }),
    brief: q => `ranking of ${q.options.length}`,
  },
  file: {
    words: 'file',
    valueType: () => ({ kind: 'list', of: TEXT }),
    brief: q => (q.most && q.most > 1 ? `up to ${q.most} files` : 'file'),
  },
  signature: simple('signature', BOOLEAN),
  value: {
    words: 'calculated value',
    valueType: (q, _, typeOf) => typeOf(q.value),
    brief: q => withUnit('calculated', q.currency ?? q.unit),
  },
  hidden: { words: 'hidden value', valueType: q => HELD[q.holds ?? 'text'], brief: () => 'hidden' },
}

/** The type of a question's answers in rules. Without `typeOf`, a calculated value is of unknown type. */
export const valueTypeOf = <T extends QuestionType>(
  question: QuestionOf<T>,
  form: Form,
  typeOf: TypeOfExpression = () => UNKNOWN,
): ValueType => TYPES[question.type].valueType(question, form, typeOf)
/** The type of a question in a few words, for the script. */
export const typeBrief = <T extends QuestionType>(question: QuestionOf<T>, form: Form): string =>
  TYPES[question.type].brief(question, form)
