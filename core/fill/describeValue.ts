import {
  dayNumber,
  isDuration,
  readableDate,
  readableDateTime,
  readableDuration,
  readableTime,
} from '../expressions/dates'
import { isNumber, numberText, rounded, type Num } from '../expressions/decimal'
import type { Value, ValueType } from '../expressions/types'
import { isContext } from '../expressions/values'
import type { Form } from '../form/definition'
import type { ChoiceType, QuestionOf, QuestionType } from '../form/questions'
import { writeInLabel } from '../form/types'
import { gridSteps, mayNotApply, notApplicableLabel, saysNotApplicable } from '../form/notApplicable'
import { optionsOf, WRITE_IN } from '../form/rows'
import { isRecord, type Answer } from '../form/answers'
import { amountIn } from './amounts'
import { isFile } from './readers'

type Teller<T extends QuestionType> = (
  value: Exclude<Value, null>,
  question: QuestionOf<T>,
  form: Form,
  given: Answer | undefined,
) => string

/** A number with blanks between its thousands from five digits on: `12 500.50`. */
export function readableNumber(n: Num, places?: number): string {
  const text = numberText(places === undefined ? n : (rounded(n, places, 'up') ?? n))
  const [whole = '', part = ''] = text.split('.')
  const grouped = whole.replace('-', '').length > 4 ? whole.replaceAll(/\B(?=(\d{3})+$)/g, '\u00a0') : whole
  const digits = places === undefined ? part : part.padEnd(places, '0')
  return grouped.replace('-', '−') + (digits ? `.${digits}` : '')
}
const number = (value: Value, unit?: string, places?: number) =>
  isNumber(value) ? readableNumber(value, places) + (unit ? `\u00a0${unit}` : '') : ''

function choice(q: QuestionOf<ChoiceType>, form: Form, code: Value, given: Answer | undefined): string {
  if (code === WRITE_IN && q.writeIn) {
    const written = [given].flat().flatMap(g => (isRecord(g) ? [String(g[WRITE_IN])] : []))
    return written.length > 0 ? written.join(', ') : writeInLabel(q)
  }
  return (
    optionsOf(form, q)?.find(r => r.code === code)?.label ??
    form.lists?.find(l => l.code === q.list)?.rows.find(r => r.code === code)?.label ??
    String(code)
  )
}
const list = (value: Value): readonly Value[] => (Array.isArray(value) ? value : [])
const plain = (value: Value) => String(value)
const labelIn = (options: readonly { code: string; label: string }[]) => (code: Value) =>
  options.find(o => o.code === code)?.label ?? String(code)

/** How an answer is written for people, by type. */
const DESCRIBERS: { readonly [T in QuestionType]: Teller<T> } = {
  text: plain,
  longText: plain,
  email: plain,
  phone: plain,
  url: plain,
  integer: (value, q) => number(value, q.unit),
  decimal: (value, q) => number(value, q.unit),
  money: (value, q) => {
    const { amount, currency } = amountIn(value, q)
    return number(amount, currency, 2)
  },
  yesNo: value => (value === true ? 'Yes' : 'No'),
  choice: (value, q, form, given) => choice(q, form, value, given),
  choices: (value, q, form, given) =>
    list(value)
      .map(code => choice(q, form, code, given))
      .join(', '),
  date: value => readableDate(plain(value)),
  time: value => readableTime(plain(value)),
  dateTime: value => readableDateTime(plain(value)),
  scale: (value, q) => `${number(value)} of ${q.max}`,
  grid: (value, q) =>
    isContext(value)
      ? q.rows
          .flatMap(r =>
            value[r.code] === null || value[r.code] === undefined
              ? []
              : [`${r.label}: ${labelIn(gridSteps(q))(value[r.code] ?? null)}`],
          )
          .join('; ')
      : '',
  ranking: (value, q) =>
    list(value)
      .map((code, i) => `${i + 1}. ${labelIn(q.options)(code)}`)
      .join(', '),
  file: (value, _q, _form, given) =>
    Array.isArray(given)
      ? given.map(f => (isFile(f) ? `${f.name} (${readableBytes(f.bytes)})` : '')).join(', ')
      : list(value).join(', '),
  signature: (_value, _q, _form, given) =>
    isRecord(given) && typeof given.typed === 'string' ? `signed: ${given.typed}` : 'signed by hand',
  value: (value, q) =>
    isNumber(value)
      ? number(value, q.currency ?? q.unit, q.decimals ?? (q.currency === undefined ? undefined : 2))
      : describeTyped(value, { kind: 'unknown' }),
  hidden: (value, q) => describeTyped(value, q.holds === 'date' ? { kind: 'date' } : { kind: 'unknown' }),
}

/** A size for people: `340 kB`, `1.2 MB`. */
export function readableBytes(bytes: number): string {
  if (bytes < 1_000) return `${bytes} bytes`
  return bytes < 1_000_000 ? `${Math.round(bytes / 1_000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
}

/** An answer as text for people; empty for blank. `given`: the answer as it is kept, where the value does not tell all. */
export const describeValue = <T extends QuestionType>(
  value: Value,
  question: QuestionOf<T>,
  form: Form,
  given?: Answer,
): string => {
  if (value !== null) return DESCRIBERS[question.type](value, question, form, given)
  return mayNotApply(question) && saysNotApplicable(given) ? notApplicableLabel(question) : ''
}

interface ValueFormat {
  longDate?: boolean
  places?: number
  glue?: string
  last?: string
}
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

/** A value of a known type as text for people; empty for blank. */
export function describeTyped(value: Value, type: ValueType, how: ValueFormat = {}): string {
  if (value === null) return ''
  if (typeof value === 'boolean') return value ? 'Yes' : 'No'
  if (isNumber(value)) return readableNumber(value, how.places)
  if (isDuration(value)) return readableDuration(value)
  if (typeof value === 'string') return describeText(value, type, how)
  if (!Array.isArray(value))
    return Object.values(value)
      .filter(v => v !== null)
      .map(v => describeTyped(v, { kind: 'unknown' }))
      .join(', ')
  const of: ValueType = type.kind === 'list' ? type.of : { kind: 'unknown' }
  const told = value.map((item: Value) => describeTyped(item, of, how)).filter(Boolean)
  const last = told.length > 1 && how.last !== undefined ? told.pop() : undefined
  return told.join(how.glue ?? ', ') + (last === undefined ? '' : `${how.last}${last}`)
}

function describeText(value: string, type: ValueType, how: ValueFormat): string {
  if (type.kind === 'code') return type.choices.get(value) ?? value
  if (how.longDate && dayNumber(value.slice(0, 10)) !== null)
    return `${Number(value.slice(8, 10))} ${MONTHS[Number(value.slice(5, 7)) - 1]} ${value.slice(0, 4)}`
  if (type.kind === 'date') return readableDate(value)
  if (type.kind === 'time') return readableTime(value)
  return type.kind === 'dateTime' ? readableDateTime(value) : value
}
