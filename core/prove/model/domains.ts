import {
  add,
  compareNumbers,
  decimalPlaces,
  divide,
  floor,
  isNumber,
  multiply,
  numberFromDouble,
  numberFromText,
  subtract,
  type Num,
} from '../../expressions/decimal'
import {
  dateTimeFromSeconds,
  dayNumber,
  FIRST_DAY,
  instant,
  isoFromDay,
  LAST_DAY,
  timeFromSeconds,
} from '../../expressions/dates'
import { nodesOf, type Expr, type TestNode } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import type { Answer } from '../../form/answers'
import { answerOf } from '../../fill/answers'
import type { Plan, PlannedQuestion } from '../../fill/planned'
import { LIMITS } from '../../form/limits'
import { type ChoiceType, type QuestionOf, type QuestionType } from '../../form/questions'
import { optionsOf, WRITE_IN } from '../../form/rows'
import { textClasses, textTestIn, type TextForm, type TextTest } from './textClasses'

/**
 * The quotient of a question's possible answers: classes that no condition of the form tells apart, each with an answer that
 * stands for it. Blank is not among them. Finite classes are exact: every possible answer lies in exactly one.
 */
export interface Domain {
  classes: readonly Value[]
  /** Each class is a single answer, so that any test of this question alone can be tabulated. */
  singletons: boolean
  /** Several of the classes may be chosen at once. */
  many: boolean
  /** The classes are wider than what can be answered, or conditions look inside them: examples need their replay. */
  open: boolean
  /** Conditions can't be decided by the classes at all, only blank or not. */
  opaque: boolean
  /** Of texts: the classes tell every test that is made of this one alone (see `isTextTest`). */
  uniform?: boolean
  /** Of several at once, by class: how many choices it stands for. */
  sizes?: readonly number[]
  /** Of numbers and times, by class: the stretch of the line that it stands for. */
  ranges?: readonly Range[]
  /** What numbers lie on: digits after the point; null: any. */
  places?: number | null
}

/** A single number, or all strictly between two (null: without end). Dates count days, times seconds. */
export interface Range {
  low: Num | null
  high: Num | null
  isPoint: boolean
}

const EXACT = { many: false, open: false, opaque: false } as const
/** Something that is answered, of which conditions ask more than classes can tell. */
const opaque = (sample: Value = null): Domain => ({
  classes: [sample ?? SOMETHING],
  singletons: false,
  many: false,
  open: true,
  opaque: true,
})
/** Stands for an answer that can't be written down, such as a calculated value. */
export const SOMETHING = '\u0000something'
export const OPAQUE: Domain = opaque()
/** A repeating group, or a grid: its entries or rows are looked into one by one. */
export const ENTRIES: Domain = { ...opaque(), open: false }

/** What conditions compare each question with. */
export interface Asked {
  constants: Map<string, Value[]>
  /** Texts that text functions look for in a question's answer. */
  pieces: Map<string, string[]>
  /** What is asked of texts that classes can tell. */
  texts: Map<string, TextTest[]>
  /** Choice questions of which every code counts: compared with another question, or looked through. */
  whole: Set<string>
}

const LITERALS: ReadonlySet<Expr['kind']> = new Set(['number', 'text', 'date', 'time', 'dateTime'])
const literal = (e: Expr): Value | undefined =>
  LITERALS.has(e.kind) && 'value' in e && !isExpr(e.value) ? e.value : undefined
const isExpr = (v: unknown): v is Expr => typeof v === 'object' && v !== null && 'kind' in v

/** Collects the constants that conditions compare questions with, by question. */
export function askedIn(
  expressions: Iterable<Expr>,
  reachedBy: (path: Expr) => readonly Value[] | null = () => null,
): Asked {
  const asked: Asked = { constants: new Map(), pieces: new Map(), texts: new Map(), whole: new Set() }
  const note = (subject: Expr, other: Expr) => {
    const value = literal(other)
    if (subject.kind !== 'name') return
    if (value !== undefined) push(asked.constants, subject.name, value)
    else if (other.kind !== 'null') {
      const cells = reachedBy(other)
      if (cells === null) asked.whole.add(subject.name)
      else for (const cell of cells) push(asked.constants, subject.name, cell)
    }
  }
  for (const expr of expressions) for (const node of nodesOf(expr)) noteNode(node, note, asked)
  return asked
}

function noteNode(node: Expr, note: (subject: Expr, other: Expr) => void, asked: Asked) {
  const test = textTestIn(node)
  if (test) for (const t of test.tests) push(asked.texts, test.code, t)
  if (node.kind === 'compare') {
    note(node.left, node.right)
    note(node.right, node.left)
  }
  if (node.kind === 'between') for (const end of [node.low, node.high]) note(node.value, end)
  if (node.kind === 'in')
    for (const test of node.tests) for (const other of testValues(test)) note(node.value, other)
  if (node.kind === 'path' && node.of.kind === 'name') asked.whole.add(node.of.name)
  if (node.kind !== 'call') return
  const names = node.args.filter(a => a.kind === 'name')
  const [list, element] = node.args
  if (node.name === 'list contains' && list?.kind === 'name' && element && literal(element) === undefined)
    asked.whole.add(list.name)
  for (const arg of node.args) {
    if (arg.kind !== 'text') continue
    for (const { name } of names) {
      if (node.name === 'list contains') push<Value>(asked.constants, name, arg.value)
      else push(asked.pieces, name, arg.value)
    }
  }
}

const testValues = (test: TestNode): Expr[] =>
  test.kind === 'range' ? [test.low, test.high] : test.kind === 'unaryTest' ? [test.value] : [test]

function push<T>(map: Map<string, T[]>, key: string, value: T) {
  const list = map.get(key)
  if (!list) map.set(key, [value])
  else if (!list.includes(value)) list.push(value)
}

interface Question<T extends QuestionType> {
  node: QuestionOf<T>
  step: PlannedQuestion
  plan: Plan
  asked: readonly Value[]
  whole: boolean
  texts: readonly TextTest[]
}
type DomainOf<T extends QuestionType> = (question: Question<T>) => Domain

const exact = (classes: readonly Value[], singletons: boolean): Domain => ({ ...EXACT, classes, singletons })

/** Texts of a form: one for every combination of outcomes that the tests asked of them can have. */
function formedText(
  { asked, texts, step }: Pick<Question<QuestionType>, 'asked' | 'texts' | 'step'>,
  form: TextForm,
): Domain {
  const named = asked.filter(v => typeof v === 'string')
  const classes = textClasses(texts, named, form)
  // One that can't be answered after all would be a form that is told wrongly here: nothing is proved by it then.
  const isRight = classes?.every(c => isPossible(c, step))
  return classes && isRight
    ? { ...exact(classes, false), uniform: true }
    : textDomain(() => null)({ asked, step })
}
function freeText(q: Question<'text'> | Question<'longText'>): Domain {
  const [least, most] = [q.node.minLength ?? 1, q.node.maxLength ?? LIMITS.text]
  const pattern = 'pattern' in q.node ? q.node.pattern : undefined
  return formedText(q, { least, most, pattern, samples: [otherText(least, most), ...SAMPLES] })
}

/** Texts: those that conditions name, and one other of the right form. */
const textDomain =
  (other: (named: readonly string[], step: PlannedQuestion) => string | null) =>
  ({ step, asked }: Pick<Question<QuestionType>, 'step' | 'asked'>): Domain => {
    const named = asked.filter(v => typeof v === 'string')
    const sample = other(named, step)
    const classes = [sample ?? SOMETHING, ...named].filter(v => v === SOMETHING || isPossible(v, step))
    return { ...EXACT, classes, singletons: false, open: classes.includes(SOMETHING) }
  }
const among = (candidates: readonly string[]) =>
  textDomain((named, step) => candidates.find(c => !named.includes(c) && isPossible(c, step)) ?? null)
/** The forms of e-mail addresses and phone numbers as `core/fill` reads them, blanks around them cut off. */
const BLANK = '\\t-\\r \u00A0\u1680\u2000-\u200A\u2028\u2029\u202F\u205F\u3000\uFEFF'
export const EMAIL: TextForm = {
  least: 1,
  most: 254,
  pattern: `[^${BLANK}@]+@[^${BLANK}@.]+(\\.[^${BLANK}@.]+)+`,
  samples: ['someone@wherry.example', 'other@wherry.example'],
}
const MARKS = String.raw`().\-/`
export const PHONE: TextForm = {
  least: 1,
  most: LIMITS.text,
  pattern: `(\\+[${BLANK}${MARKS}]*|[${MARKS}][${BLANK}${MARKS}]*)?(\\d[${BLANK}${MARKS}]*){4,19}\\d([${BLANK}${MARKS}]*[${MARKS}])?`,
  samples: ['01632 960001', '01632 960002'],
}
const SAMPLES = ['AB 1234', '12345', 'A1', 'ABC', '1', 'abc', '01-234', 'WR-2026-001']

const numberDomain = (
  { asked, step }: Pick<Question<QuestionType>, 'asked' | 'step'>,
  min: number | undefined,
  max: number | undefined,
  places: number | null,
): Domain =>
  ranged(
    numberClasses(asked, min, max, places).filter(c => isPossible(c.value, step)),
    places,
  )

const ranged = (classes: readonly (Range & { value: Value })[], places: number | null): Domain => ({
  ...exact(
    classes.map(c => c.value),
    false,
  ),
  ranges: classes.map(({ low, high, isPoint }) => ({ low, high, isPoint })),
  places,
})

/** Dates and times as numbers of units. */
function timeDomain(
  { asked, step }: Pick<Question<QuestionType>, 'asked' | 'step'>,
  bounds: readonly (string | undefined)[],
  to: (text: string) => number | null,
  from: (n: number) => string | null,
  common: number,
): Domain {
  const numbers = [...asked, ...bounds]
    .map(v => (typeof v === 'string' ? to(v) : null))
    .filter(n => n !== null)
  const classes = numberClasses(numbers, undefined, undefined, 0, common).map(c => ({
    ...c,
    value: typeof c.value === 'number' ? from(c.value) : null,
  }))
  return ranged(
    classes.filter(c => c.value !== null && isPossible(c.value, step)),
    0,
  )
}

/** Where an open interval leaves the choice, witnesses take a day of this time rather than one of the year 1. */
const COMMON_DAY = 20_000
const DAY_SECONDS = 86_400

const DOMAINS: { readonly [T in QuestionType]: DomainOf<T> } = {
  yesNo: () => exact([true, false], true),
  choice: q => choiceDomain(q),
  choices: q => {
    const domain = choiceDomain(q)
    return { ...domain, singletons: false, many: true }
  },
  text: freeText,
  longText: freeText,
  email: q => formedText(q, EMAIL),
  phone: q => formedText(q, PHONE),
  url: among(['https://wherry.example', 'https://reach.example']),
  integer: q => numberDomain(q, q.node.min, q.node.max, 0),
  decimal: q => numberDomain(q, q.node.min, q.node.max, q.node.decimals ?? null),
  money: q => numberDomain(q, q.node.min, q.node.max, 2),
  scale: q => numberDomain(q, q.node.min, q.node.max, 0),
  date: q =>
    timeDomain(
      q,
      [q.node.min, q.node.max],
      dayNumber,
      n => (n >= FIRST_DAY && n <= LAST_DAY ? isoFromDay(n) : null),
      COMMON_DAY,
    ),
  time: q =>
    timeDomain(
      q,
      [q.node.min && `${q.node.min}:00`.slice(0, 8), q.node.max && `${q.node.max}:00`.slice(0, 8)],
      instant,
      timeFromSeconds,
      36_000,
    ),
  dateTime: q =>
    timeDomain(
      q,
      [q.node.min && `${q.node.min}:00`.slice(0, 19), q.node.max && `${q.node.max}:00`.slice(0, 19)],
      instant,
      dateTimeFromSeconds,
      COMMON_DAY * DAY_SECONDS + 36_000,
    ),
  grid: ({ node }) =>
    node.rows.length === 0 || node.options.length === 0
      ? exact([], false)
      : opaque(Object.fromEntries(node.rows.map(r => [r.code, node.options[0]?.code ?? null]))),
  ranking: ({ node }) => {
    const orders = ordersOf(
      node.options.map(o => o.code),
      Math.min(node.most ?? node.options.length, node.options.length),
    )
    return orders === null ? opaque(node.options.slice(0, node.most).map(o => o.code)) : exact(orders, true)
  },
  file: () => opaque(['sample.pdf']),
  signature: () => exact([true], true),
  value: () => OPAQUE,
  hidden: q => {
    const holds = q.node.holds ?? 'text'
    if (holds === 'yesNo') return exact([true, false], true)
    if (holds === 'number') return numberDomain(q, undefined, undefined, null)
    return holds === 'date'
      ? timeDomain(
          q,
          [],
          dayNumber,
          n => (n >= FIRST_DAY && n <= LAST_DAY ? isoFromDay(n) : null),
          COMMON_DAY,
        )
      : formedText(q, { least: 1, most: LIMITS.label, samples: ['Something'] })
  },
}

const MOST_ORDERS = 400
/** All orders of so many of the codes; null when they are too many, and none of nothing. */
function ordersOf(codes: readonly string[], length: number): string[][] | null {
  let orders: string[][] = [[]]
  for (let n = 0; n < length; n++) {
    if (orders.length * (codes.length - n) > MOST_ORDERS) return null
    orders = orders.flatMap(order => codes.filter(c => !order.includes(c)).map(c => [...order, c]))
  }
  return length === 0 ? [] : orders
}

/** How many rows of a list are told apart one by one. */
const MOST_WHOLE = 400

function choiceDomain({ node, plan, asked, whole }: Question<ChoiceType>): Domain {
  const codes = [
    ...new Set([...(optionsOf(plan.form, node) ?? []).map(r => r.code), ...(node.writeIn ? [WRITE_IN] : [])]),
  ]
  // Of a long list that is looked through, what conditions ask can't be told by a few classes.
  if (whole && codes.length > MOST_WHOLE) return { ...opaque(codes[0] ?? null), classes: codes.slice(0, 1) }
  const named = new Set(asked)
  const alone = new Set((optionsOf(plan.form, node) ?? []).flatMap(r => (r.alone ? [r.code] : [])))
  const mentioned = codes.filter(code => whole || named.has(code) || alone.has(code))
  const other = codes.find(code => !mentioned.includes(code))
  const classes = other === undefined ? mentioned : [other, ...mentioned]
  // Which classes are on offer is a matter of clauses, see `offers.ts`.
  const sizes = classes.map((_, i) => (i === 0 && other !== undefined ? codes.length - mentioned.length : 1))
  return { ...EXACT, classes, sizes, singletons: classes.length === codes.length && !node.writeIn }
}

const NO_ROWS = new Map<string, never>()
/** Whether a value can be given as an answer, whatever is narrowed. */
export function isPossible(value: Value, step: PlannedQuestion): boolean {
  const reading = step.read(sampleAnswer(step, value), { offered: null, rows: step.offer?.rows ?? NO_ROWS })
  return reading.wrong === null && reading.value !== null
}

/** The answer that gives a value to a question. */
export function sampleAnswer({ place: { node } }: PlannedQuestion, value: Value): Answer {
  if (value === WRITE_IN && 'writeIn' in node && node.writeIn) return { [WRITE_IN]: 'Something else' }
  if (node.type === 'signature') return { typed: 'Signed' }
  if (node.type === 'file') return [{ file: 'sample-0001', name: 'sample.pdf', bytes: 1_000 }]
  if (node.type === 'choices' && Array.isArray(value))
    return value.map((code: Value) =>
      code === WRITE_IN && node.writeIn ? { [WRITE_IN]: 'Something else' } : answerOf(code),
    )
  return answerOf(value)
}

/** The domain of a question. */
export function domainOf<T extends QuestionType>(
  node: QuestionOf<T>,
  step: PlannedQuestion,
  plan: Plan,
  asked: Asked,
): Domain {
  const begins = isLockable(step, plan) ? constantDefault(step) : undefined
  const constants = asked.constants.get(node.code) ?? []
  const domain = DOMAINS[node.type]({
    node,
    step,
    plan,
    asked: begins === undefined || constants.includes(begins) ? constants : [...constants, begins],
    whole: asked.whole.has(node.code),
    texts: asked.texts.get(node.code) ?? [],
  })
  return lockedAs(domain, step, plan)
}

/** Whether a question may be read-only, by a rule of its own or of what stands around it. */
export const isLockable = (step: PlannedQuestion, plan: Plan): boolean =>
  step.readOnly !== null ||
  (plan.sections[step.place.section]?.readOnly ?? null) !== null ||
  step.place.groups.some(g => g.node.readOnly !== undefined)

/** The answer that a question begins with, where that is written down as it is and can be given. */
export function constantDefault(step: PlannedQuestion): Value | undefined {
  const expr = step.default?.expr
  const value = !expr ? undefined : expr.kind === 'boolean' ? expr.value : literal(expr)
  return value !== undefined && isPossible(value, step) ? value : undefined
}

/** A read-only answer is what the question begins with: told where that is nothing, or one that stands there. */
export function lockedAs(domain: Domain, step: PlannedQuestion, plan: Plan): Domain {
  const isTold =
    (step.default === null || (constantDefault(step) !== undefined && !domain.many)) &&
    !(step.offer?.narrow ?? step.offer?.rules)
  const isOpen = step.offer?.onlyOne === true || (!isTold && isLockable(step, plan))
  return isOpen ? { ...domain, open: true, opaque: true, singletons: false } : domain
}

/** A text that reads well, within the lengths. */
const otherText = (least: number, most: number): string =>
  'Something'.slice(0, most).padEnd(Math.min(least, 40), 'x')

/**
 * One number for every stretch that the constants and limits cut the line into: the constants themselves, and the gaps.
 * @param places digits after the point that answers may have; null: any
 */
export function numberClasses(
  asked: readonly Value[],
  min: number | undefined,
  max: number | undefined,
  places: number | null,
  common = 0,
): (Range & { value: Num })[] {
  const cuts = asked.filter(isNumber)
  for (const limit of [min, max]) {
    const n = limit === undefined ? null : numberFromDouble(limit)
    if (n !== null) cuts.push(n)
  }
  const sorted = cuts
    .sort(compareNumbers)
    .filter((n, i, all) => i === 0 || compareNumbers(n, all[i - 1] ?? n) !== 0)
  if (sorted.length === 0) return [{ value: common, low: null, high: null, isPoint: false }]
  const classes: (Range & { value: Num })[] = []
  const addGap = (low: Num | null, high: Num | null) => {
    const value = inGap(low, high, places, common)
    if (value !== null) classes.push({ value, low, high, isPoint: false })
  }
  addGap(null, sorted[0] ?? null)
  sorted.forEach((cut, i) => {
    if (places === null || decimalPlaces(cut) <= places)
      classes.push({ value: cut, low: cut, high: cut, isPoint: true })
    addGap(cut, sorted[i + 1] ?? null)
  })
  return classes.filter(
    ({ value }) =>
      (min === undefined || compareNumbers(value, min) >= 0) &&
      (max === undefined || compareNumbers(value, max) <= 0),
  )
}

/** A number strictly between two, with at most so many places; null when there is none. */
function inGap(low: Num | null, high: Num | null, places: number | null, common: number): Num | null {
  const isInside = (n: Num | null): n is Num =>
    n !== null &&
    (low === null || compareNumbers(n, low) > 0) &&
    (high === null || compareNumbers(n, high) < 0)
  if (isInside(common)) return common
  const start = low === null ? floor(subtract(high ?? 0, 1) ?? 0) : floor(add(low, 1) ?? 0)
  if (isInside(start)) return start
  if (low === null || high === null) return null
  const most = places ?? 2 + Math.max(decimalPlaces(low), decimalPlaces(high))
  for (let p = 1; p <= most; p++) {
    const scale = numberFromText(`1${'0'.repeat(p)}`) ?? 1
    const steps = floor(multiply(low, scale) ?? 0)
    const next = steps === null ? null : divide(add(steps, 1) ?? 0, scale)
    if (isInside(next)) return next
  }
  return null
}
