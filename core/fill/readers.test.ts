import type { QuestionType } from '../form/questions'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayNumber } from '../expressions/dates'
import { compareNumbers, decimalPlaces, isNumber } from '../expressions/decimal'
import type { Value, ValueType } from '../expressions/types'
import type { Form, Item } from '../form/definition'
import type { Answer } from '../form/answers'
import { fill, problemsIn } from './fill'
import { planOf } from './plan'
import { ALL_MESSAGES } from '../form/messages'
import type { PlannedQuestion } from './planned'

const options = ['a', 'b', 'c'].map(code => ({ code, label: code.toUpperCase() }))
const ITEMS = [
  { type: 'text', minLength: 2, maxLength: 6, pattern: '[a-z ]+' },
  { type: 'longText', maxLength: 8 },
  { type: 'integer', min: -3, max: 12 },
  { type: 'decimal', decimals: 2, max: 99 },
  { type: 'money', currency: 'EUR', min: 0 },
  { type: 'yesNo' },
  { type: 'choice', options, writeIn: true },
  { type: 'choices', options, least: 1, most: 2, writeIn: true },
  { type: 'date', min: '2020-01-01', max: '2030-12-31' },
  { type: 'time', min: '08:00' },
  { type: 'dateTime' },
  { type: 'email' },
  { type: 'phone' },
  { type: 'url' },
  { type: 'scale', min: 1, max: 5 },
  { type: 'grid', rows: options, options },
  { type: 'ranking', options, most: 2 },
  { type: 'file', most: 2 },
  { type: 'signature' },
  { type: 'hidden', holds: 'number' },
  { type: 'hidden', holds: 'date' },
  { type: 'hidden' },
].map((more, i) => ({ kind: 'question', code: `q${i}`, label: 'Asked', ...more }) as Item)
const form: Form = { tobbin: 2, code: 'f', title: 'F', sections: [{ code: 's', title: 'S', items: ITEMS }] }
const plan = planOf(form)
const read = (question: PlannedQuestion, answer: Answer) =>
  question.read(answer, { offered: null, rows: question.offer?.rows ?? new Map() })

/** Answers as anybody might send them: of every type, near the limits, and nonsense. */
const answer: fc.Arbitrary<Answer> = fc.oneof(
  fc.constantFrom<Answer>(
    null,
    '',
    ' ',
    true,
    false,
    'a',
    'z',
    'ab cd',
    'abcdefgh',
    0,
    12,
    12.5,
    -3,
    '12',
    '12.345',
    ' 7 ',
    '1e3',
    'NaN',
    '2026-02-29',
    '2028-02-29',
    '2019-12-31',
    '07:59',
    '08:00',
    '24:00',
    '2026-11-24T10:30',
    'a@b.example',
    'a@b',
    '01632 960001',
    '+44 (1632) 960001',
    'https://wherry.example',
    'wherry.example',
  ),
  fc.subarray<Answer>(['a', 'b', 'c', 'z', 'a']),
  fc.record({ a: fc.constantFrom('a', 'b', null), b: fc.constantFrom('c', 'z') }),
  fc.record({ other: fc.string({ maxLength: 5 }) }),
  fc.record({
    amount: fc.oneof(fc.integer(), fc.constantFrom('9.50', 'x', '')),
    currency: fc.constantFrom('EUR', 'USD'),
  }),
  fc.record({ typed: fc.string({ maxLength: 6 }) }),
  fc.record({ drawn: fc.constantFrom('M1 2 L3 4', '<svg>') }),
  fc.array(
    fc.record({
      file: fc.constantFrom('0123456789ab', '../etc'),
      name: fc.string({ maxLength: 5 }),
      bytes: fc.nat(),
    }),
    { maxLength: 3 },
  ),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
  fc.string({ maxLength: 12 }),
  fc.jsonValue({ maxDepth: 2 }) as fc.Arbitrary<Answer>,
)

const isBetween = (v: Value, low: number, high: number, places: number) =>
  isNumber(v) && compareNumbers(v, low) >= 0 && compareNumbers(v, high) <= 0 && decimalPlaces(v) <= places
/** Whether a value keeps the limits of the question of its type above. */
const LIMITS_KEPT: Readonly<Partial<Record<QuestionType, (v: Value) => boolean>>> = {
  integer: v => isBetween(v, -3, 12, 0),
  decimal: v => isBetween(v, -Infinity, 99, 2),
  money: v => isBetween(v, 0, Infinity, 2),
  date: v => v !== null && v >= '2020-01-01' && v <= '2030-12-31',
  text: v => typeof v === 'string' && /^[a-z ]{2,6}$/.test(v),
  choices: v => Array.isArray(v) && v.length > 0,
  ranking: v => Array.isArray(v) && v.length === 2 && new Set(v).size === 2,
}
const isFilledText = (v: Value) => typeof v === 'string' && v !== ''
const IS_OF_KIND: Readonly<Partial<Record<ValueType['kind'], (v: Value) => boolean>>> = {
  number: isNumber,
  boolean: v => typeof v === 'boolean',
  date: v => typeof v === 'string' && dayNumber(v) !== null,
  text: isFilledText,
  time: isFilledText,
  dateTime: isFilledText,
  code: isFilledText,
  list: v => Array.isArray(v) && v.length > 0,
  context: v => typeof v === 'object' && v !== null,
}
/** Whether a value is one of its type, with all that is in it. */
function isOf(type: ValueType, value: Value): boolean {
  if (IS_OF_KIND[type.kind]?.(value) === false) return false
  if (type.kind === 'list' && Array.isArray(value)) return value.every((v: Value) => isOf(type.of, v))
  if (type.kind !== 'context') return true
  return [...type.members.keys()].every(member => member === 'points' || member in Object(value))
}

describe('an answer of any kind', () => {
  it('gives a value of the question’s type or none, the same again, and says in a sentence what is wrong', () => {
    fc.assert(
      fc.property(answer, given => {
        for (const question of plan.questions) {
          const reading = read(question, given)
          if (reading.value !== null)
            expect([
              question.place.node.type,
              reading.value,
              isOf(plan.names.typeOf(question.place.code), reading.value),
            ]).toEqual([question.place.node.type, reading.value, true])
          if (reading.wrong !== null) expect(reading.wrong).toMatch(/^[A-Z“].*[.!?]$/s)
          // What is kept of it reads as the same: saved, sent and read again it stays what it was.
          if (reading.wrong !== null || reading.value === null) continue
          const again = read(question, reading.answer)
          expect([JSON.stringify(again.value), again.wrong]).toEqual([JSON.stringify(reading.value), null])
        }
      }),
      { numRuns: 1_500 },
    )
  })

  it('within the limits of numbers, dates and choices only', () => {
    fc.assert(
      fc.property(answer, given => {
        for (const question of plan.questions) {
          const { node } = question.place
          const { value, wrong } = read(question, given)
          if (value === null || wrong !== null) continue
          expect([node.type, value, LIMITS_KEPT[node.type]?.(value) ?? true]).toEqual([
            node.type,
            value,
            true,
          ])
        }
      }),
      { numRuns: 1_500 },
    )
  })
})

describe('an answer of any kind', () => {
  it('is a problem of its question alone: every other question stays as it was', () => {
    fc.assert(
      fc.property(answer, fc.nat(ITEMS.length - 1), (given, at) => {
        const code = `q${at}`
        const state = fill(plan, { q5: true, [code]: given }, '2026-11-24')
        const section = plan.sections[0]
        if (!section) throw new Error('There is no section.')
        const wrong = problemsIn(state, section).map(p => p.path.replace(/\W.*$/, ''))
        expect(wrong.filter(path => path !== code)).toEqual([])
        const others = plan.questions.filter(q => q.place.code !== code && q.place.code !== 'q5')
        expect(others.map(q => state.values[q.slot] ?? null)).toEqual(others.map(() => null))
      }),
      { numRuns: 800 },
    )
  })
})

describe('own words for what is wrong', () => {
  const own = (words: string) =>
    Object.fromEntries(ALL_MESSAGES.filter(k => k !== 'missing').map(k => [k, words]))
  const bare = ITEMS.filter(i => i.kind === 'question' && 'label' in i && i.type !== 'hidden')
  const formWith = (items: readonly Item[], messages?: object): Form =>
    ({ ...form, ...(messages ? { messages } : {}), sections: [{ code: 's', title: 'S', items }] }) as Form
  const asked = (made: Form, code: string) => planOf(made).byCode.get(code)!

  it('are those of the question, else of the form, wherever there is something to be said, and change nothing else', () => {
    const general = formWith(bare, own('Of the form.'))
    const special = formWith(
      bare.map(i => ({ ...i, messages: own('Of the question.') }) as Item),
      own('Of the form.'),
    )
    let said = 0
    fc.assert(
      fc.property(fc.constantFrom(...bare), answer, ({ code }, given) => {
        const [plain, form_, own_] = [plan.byCode.get(code)!, asked(general, code), asked(special, code)].map(
          q => read(q, given),
        )
        expect([form_?.value, own_?.value]).toEqual([plain?.value, plain?.value])
        if (plain?.why == null) expect(own_?.wrong).toBe(plain?.wrong)
        else expect([form_?.wrong, own_?.wrong]).toEqual(['Of the form.', 'Of the question.'])
        if (plain?.why != null) said += 1
      }),
      { numRuns: 1000 },
    )
    expect(said).toBeGreaterThan(50)
  })
})
