import type { Form, Item, Section } from './definition'
import { QUESTIONS, type Option, type Question, type QuestionType } from './questions'
import { codeFromLabel, freeCode, takenCodes } from './codes'

/** What a new line of the script can become. */
export type LineKind = QuestionType | 'note' | 'group' | 'section'

/** What each type begins with besides code and label. */
const FRESH: { readonly [T in QuestionType]: (code: string, label: string) => Question } = {
  text: (code, label) => ({ kind: 'question', code, type: 'text', label }),
  integer: (code, label) => ({ kind: 'question', code, type: 'integer', label }),
  decimal: (code, label) => ({ kind: 'question', code, type: 'decimal', label }),
  yesNo: (code, label) => ({ kind: 'question', code, type: 'yesNo', label }),
  choice: (code, label) => ({ kind: 'question', code, type: 'choice', label, options: [] }),
  date: (code, label) => ({ kind: 'question', code, type: 'date', label }),
  longText: (code, label) => ({ kind: 'question', code, type: 'longText', label }),
  money: (code, label) => ({ kind: 'question', code, type: 'money', label, currency: 'EUR' }),
  choices: (code, label) => ({ kind: 'question', code, type: 'choices', label, options: [] }),
  time: (code, label) => ({ kind: 'question', code, type: 'time', label }),
  dateTime: (code, label) => ({ kind: 'question', code, type: 'dateTime', label }),
  email: (code, label) => ({ kind: 'question', code, type: 'email', label }),
  phone: (code, label) => ({ kind: 'question', code, type: 'phone', label }),
  url: (code, label) => ({ kind: 'question', code, type: 'url', label }),
  scale: (code, label) => ({ kind: 'question', code, type: 'scale', label, min: 1, max: 5 }),
  grid: (code, label) => ({
    kind: 'question',
    code,
    type: 'grid',
    label,
    rows: [{ code: 'row_1', label: 'First row' }],
    options: ['Poor', 'Fair', 'Good'].map(l => ({ code: l.toLowerCase(), label: l })),
  }),
  ranking: (code, label) => ({ kind: 'question', code, type: 'ranking', label, options: [] }),
  file: (code, label) => ({ kind: 'question', code, type: 'file', label }),
  signature: (code, label) => ({ kind: 'question', code, type: 'signature', label }),
  value: (code, label) => ({ kind: 'question', code, type: 'value', label, value: '0' }),
  hidden: (code, label) => ({ kind: 'question', code, type: 'hidden', label }),
}

/** A new section with a code of its own. */
export const newSection = (form: Form, title: string): Section => ({
  code: freeCode(codeFromLabel(title, 'section'), takenCodes(form, 'section')),
  title,
  items: [],
})

/** A new item from a typed line, with a code made from its words that is free in the form. */
export function newItem(
  form: Form,
  kind: Exclude<LineKind, 'section'>,
  line: string,
  alsoTaken: readonly string[] = [],
): Item {
  const taken = new Set([...takenCodes(form, 'item'), ...alsoTaken])
  if (kind === 'note') return { kind, code: freeCode('note', taken), text: line }
  if (kind === 'group')
    return { kind, code: freeCode(codeFromLabel(line, 'group'), taken), title: line, items: [] }
  return FRESH[kind](freeCode(codeFromLabel(line), taken), line)
}

/** The properties that a question of a type may have. */
const keysOf = (type: QuestionType): readonly string[] => Object.keys(QUESTIONS[type].shape)
/** Properties that mean the same for every type that has them; the others go when the type changes, unless both types have them alike. */
const ALIKE: Readonly<Record<string, readonly QuestionType[]>> = {
  options: ['choice', 'choices', 'ranking'],
  list: ['choice', 'choices'],
  narrowedBy: ['choice', 'choices'],
  writeIn: ['choice', 'choices'],
  min: ['integer', 'decimal', 'money'],
  max: ['integer', 'decimal', 'money'],
  atLeast: ['integer', 'decimal', 'money'],
  atMost: ['integer', 'decimal', 'money'],
  unit: ['integer', 'decimal', 'value'],
  decimals: ['decimal', 'value'],
  currency: ['money', 'value'],
  minLength: ['text', 'longText'],
  maxLength: ['text', 'longText'],
}
const COMMON: ReadonlySet<string> = new Set([
  'kind',
  'code',
  'label',
  'help',
  'placeholder',
  'shownWhen',
  'required',
  'requiredMessage',
  'messages',
  'validWhen',
  'readOnly',
  'skips',
  'under',
  'span',
  'indent',
  'officeOnly',
  'privateTo',
  'personal',
])

/** Whether a property of a question stays when it becomes one of another type. */
function staysOnRetyping(key: string, from: QuestionType, to: QuestionType): boolean {
  if (!keysOf(to).includes(key)) return false
  const alike = ALIKE[key]
  return COMMON.has(key) || (alike !== undefined && alike.includes(to) && alike.includes(from))
}

/** What a question had under other types, and may have under this one again. */
function comingBack(
  question: Question,
  type: QuestionType,
  before: readonly Question[],
): Record<string, unknown> {
  const found: Record<string, unknown> = {}
  for (const earlier of before)
    for (const [key, value] of Object.entries(earlier)) {
      const fits =
        earlier.type === type ? keysOf(type).includes(key) : staysOnRetyping(key, earlier.type, type)
      // What the type in between can hand on was changed, or taken away, on purpose.
      const isLost = !keysOf(question.type).includes(key) || !staysOnRetyping(key, question.type, type)
      if (fits && isLost && !(key in found)) found[key] = value
    }
  return found
}

/** What a question of a type begins with, what comes back before what is new. */
function freshPart(type: QuestionType, back: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const fresh: Record<string, unknown> = { ...FRESH[type]('x', ''), ...back }
  // Choices come from a list, or stand there themselves.
  if ('list' in back && !('options' in back)) delete fresh.options
  return fresh
}

/** Options of a choice may carry what those of a ranking may not: it goes, and comes back by their code; undefined where nothing changes. */
function optionsFor(
  question: Question,
  type: QuestionType,
  before: readonly Question[],
): Option[] | undefined {
  const options = 'options' in question ? question.options : undefined
  if (type === 'ranking') return options?.map(({ code, label }) => ({ code, label }))
  const earlier = before.find(q => q.type === type)
  if (question.type !== 'ranking' || !earlier || !('options' in earlier)) return undefined
  return options?.map(o => ({ ...earlier.options?.find(e => e.code === o.code), ...o }))
}

/**
 * The properties to set so that a question becomes one of another type, keeping what both have.
 * @param before the question as it was under other types, the latest first: what it had then comes back where it fits
 */
export function retypeQuestion(
  question: Question,
  type: QuestionType,
  before: readonly Question[] = [],
): Record<string, unknown> {
  const back = comingBack(question, type, before)
  const fresh = freshPart(type, back)
  const set: Record<string, unknown> = { type }
  for (const key of Object.keys(question))
    if (key !== 'type' && !staysOnRetyping(key, question.type, type)) set[key] = fresh[key] ?? null
  for (const [key, value] of Object.entries(fresh))
    if (!(key in question) && (key in back || !COMMON.has(key))) set[key] = value
  const options = optionsFor(question, type, before)
  if (options && set.options === undefined) set.options = options
  return { ...set, type }
}
