import fc from 'fast-check'
import type { Form, Item, Section } from '../../core/form/definition'
import {
  type Numeric,
  type Condition,
  type Kind,
  type Asked,
  pick,
  OPTIONS,
  dayText,
  numeric,
  condition,
  maybe,
} from './smtConditions'

/** A form, and what can be asked of it: by place, when it can come into play; of the promise, when it is broken. */
export interface Said {
  form: Form
  smt: string
  shown: { code: string; section: number; goal: string }[]
  complete: string[]
  broken: string
}

interface Drawn {
  asked: Asked
  low: number
  high: number
  shown: Condition | undefined
  required: true | Condition | undefined
  valid: Condition | undefined
  value: Numeric
}
const drawn = (asked: Asked, before: readonly Asked[]): fc.Arbitrary<Drawn> =>
  fc.record({
    asked: fc.constant(asked),
    low: fc.integer({ min: -300, max: 100 }),
    high: fc.integer({ min: 101, max: 2_000 }),
    shown: maybe(condition(before)),
    required: fc.oneof(fc.constant(undefined), fc.constant(true as const), condition(before)),
    valid: maybe(condition([...before, asked])),
    value: numeric(before),
  })

/** Whether an answer is required, as a formula. */
function neededIn(required: Drawn['required']): string {
  if (required === undefined) return 'false'
  return required === true ? 'true' : required.t
}

/** Of one question, what both languages say that is its kind's own. */
interface Kinded {
  item: Record<string, unknown>
  before?: string[]
  after: string[]
}
const within = (code: string, low: number, high: number) =>
  `(assert (and (<= ${whole(low)} v_${code}) (<= v_${code} ${whole(high)})))`
const wholeNumber = (code: string, low: number, high: number) => ({
  before: [`(declare-const v_${code} Int)`],
  after: [within(code, low, high)],
})
const KINDS: Readonly<Record<Exclude<Kind, 'value'>, (d: Drawn) => Kinded>> = {
  integer: ({ asked: { code }, low, high }) => ({
    item: { type: 'integer', min: low, max: high },
    ...wholeNumber(code, low, high),
  }),
  decimal: ({ asked: { code }, low, high }) => ({
    item: { type: 'decimal', min: low, max: high, decimals: 2 },
    ...wholeNumber(code, low * 100, high * 100),
  }),
  date: ({ asked: { code }, high }) => ({
    item: { type: 'date', min: dayText(0), max: dayText(high) },
    ...wholeNumber(code, 0, high),
  }),
  choices: ({ asked: { code } }) => {
    const chosen = OPTIONS.map(o => `o_${code}_${o}`)
    const counted = chosen.map(o => `(ite ${o} 1 0)`).join(' ')
    return {
      item: { type: 'choices', options: OPTIONS.map(o => ({ code: o, label: o })) },
      before: [
        ...chosen.map(o => `(declare-const ${o} Bool)`),
        `(define-fun v_${code} () Int (+ ${counted}))`,
      ],
      after: [`(assert (= a_${code} (or ${chosen.join(' ')})))`],
    }
  },
  yesNo: ({ asked: { code } }) => ({
    item: { type: 'yesNo' },
    before: [`(declare-const b_${code} Bool)`],
    after: [],
  }),
}

interface SaidQuestion {
  item: Item
  smt: string[]
  /** When the question keeps nobody, as a formula. */
  complete: string
}
/** One question in both languages: its definition, and its declarations. */
function said(drawn: Drawn, around: string): SaidQuestion {
  const { asked, shown, value } = drawn
  const { code, kind } = asked
  const common = { kind: 'question' as const, code, label: code, ...(shown ? { shownWhen: shown.feel } : {}) }
  const inPlay = `(define-fun p_${code} () Bool (and ${around} ${shown?.t ?? 'true'}))`
  if (kind !== 'value') return saidAnswered(drawn, KINDS[kind](drawn), common, inPlay)
  return {
    item: { ...common, type: 'value', value: value.feel },
    smt: [
      inPlay,
      `(define-fun a_${code} () Bool (and p_${code} ${value.given}))`,
      `(define-fun v_${code} () Real ${value.value})`,
    ],
    complete: 'true',
  }
}

function saidAnswered(
  { asked: { code }, required, valid }: Drawn,
  { item, before = [], after }: Kinded,
  common: object,
  inPlay: string,
): SaidQuestion {
  const rules = {
    ...(required === undefined ? {} : { required: required === true ? true : required.feel }),
    ...(valid ? { validWhen: [{ rule: valid.feel, message: 'No.' }] } : {}),
  }
  const answered = `(=> ${neededIn(required)} a_${code})`
  const met = valid ? `(not ${valid.f})` : 'true'
  const declared = [`(declare-const a_${code} Bool)`, inPlay, `(assert (=> a_${code} p_${code}))`]
  return {
    item: { ...common, ...rules, ...item } as Item,
    smt: [...before, ...declared, ...after],
    complete: `(=> p_${code} (and ${answered} ${met}))`,
  }
}
const whole = (n: number) => (n < 0 ? `(- ${-n})` : `${n}`)

interface Parts {
  questions: Drawn[]
  second: Condition | undefined
  notes: Condition[]
  promise: Condition
}
/** A form of what was drawn, and the same in the other language; `half`: so many questions stand in the first section. */
function putTogether({ questions, second, notes, promise }: Parts, half: number): Said {
  const shownSecond = second?.t ?? 'true'
  const made = questions.map((d, i) => said(d, i < half ? 'true' : 's_1'))
  const complete = [0, 1].map(
    s =>
      `(and true ${made
        .filter((_, i) => (i < half ? 0 : 1) === s)
        .map(m => m.complete)
        .join(' ')})`,
  )
  const noteItems = notes.map(({ feel }, i): Item => ({
    kind: 'note',
    code: `n${i}`,
    text: 'Note',
    shownWhen: feel,
  }))
  const sections: Section[] = [
    {
      code: 's0',
      title: 'First',
      items: [...made.slice(0, half).map(m => m.item), ...noteItems.slice(0, 1)],
    },
    {
      code: 's1',
      title: 'Second',
      ...(second ? { shownWhen: second.feel } : {}),
      items: [...made.slice(half).map(m => m.item), ...noteItems.slice(1)],
    },
  ]
  const sectionOf = (i: number) => (i < half ? 0 : 1)
  return {
    form: {
      tobbin: 2,
      code: 'f',
      title: 'F',
      sections,
      promises: [{ code: 'p', text: 'P', holds: promise.feel }],
    },
    smt: [
      ...made.slice(0, half).flatMap(m => m.smt),
      `(define-fun s_1 () Bool ${shownSecond})`,
      ...made.slice(half).flatMap(m => m.smt),
    ].join('\n'),
    shown: [
      ...questions.flatMap((d, i) =>
        d.shown ? [{ code: d.asked.code, section: sectionOf(i), goal: `p_${d.asked.code}` }] : [],
      ),
      ...notes.map((n, i) => ({
        code: `n${i}`,
        section: i === 0 ? 0 : 1,
        goal: `(and ${i === 0 ? 'true' : 's_1'} ${n.t})`,
      })),
      ...(second ? [{ code: 's1', section: 1, goal: 's_1' }] : []),
    ],
    complete: [complete[0] ?? 'true', `(=> s_1 ${complete[1] ?? 'true'})`],
    broken: `(not ${promise.t})`,
  }
}

/** Forms of two sections, with notes to be shown and one promise. */
export const saidForm: fc.Arbitrary<Said> = fc
  .array(pick<Kind>('integer', 'integer', 'decimal', 'date', 'date', 'choices', 'yesNo', 'value'), {
    minLength: 3,
    maxLength: 6,
  })
  .chain(kinds => {
    const asked = kinds.map((kind, i): Asked => ({ code: `q${i}`, kind }))
    const half = Math.ceil(asked.length / 2)
    return fc
      .record({
        questions: fc.tuple(...asked.map((a, i) => drawn(a, asked.slice(0, i)))),
        second: maybe(condition(asked.slice(0, half))),
        notes: fc.tuple(condition(asked.slice(0, half)), condition(asked), condition(asked)),
        promise: condition(asked),
      })
      .map(parts => putTogether(parts, half))
  })
