import fc from 'fast-check'
import { AMOUNT, AMOUNTS_GIVEN, amountLeaf } from './amounts'
import { DAYS, days } from './days'
import { skipping } from './skipping'
import type { Answer } from '../../core/form/answers'
import type { Form, Item, Section } from '../../core/form/definition'
import type { Question } from '../../core/form/questions'

/** Random small forms for properties: few questions with few answers each, so that brute force can try them all. */

type Kind = 'yesNo' | 'choice' | 'choices' | 'integer' | 'text' | 'date' | 'money' | 'value'
export interface Asked {
  code: string
  kind: Kind
}
const isKind = (type: string): type is Kind => type in ANSWERS

const NUMBERS = [0, 1, 2, 3]
const CODES = ['a', 'b', 'c']
const TEXTS = ['oak', 'elm']
const LENGTHS = [1, 2, 3, 4]

/** Every answer that can be given to a question of the random forms (texts: those named, and one for every way in which their tests turn out). */
export const ANSWERS: Record<Kind, readonly Exclude<Answer, null>[]> = {
  yesNo: [true, false],
  choice: CODES,
  choices: [['a'], ['b'], ['c'], ['a', 'b'], ['a', 'c'], ['b', 'c'], CODES],
  integer: NUMBERS,
  text: [...TEXTS, 'yew', 'koa', 'x', 'k', 'xx', 'kx', 'yews', 'koas'],
  date: DAYS,
  money: AMOUNTS_GIVEN,
  value: [],
}

/** The answers that can be given to a question of a random form: those beyond its limits are none. */
export const answersTo = (question: Question): (typeof ANSWERS)[Kind] =>
  isKind(question.type) ? ANSWERS[question.type].filter(answer => fits(question, answer)) : []

function fits(question: Question, answer: (typeof ANSWERS)[Kind][number]): boolean {
  const within = <T extends number | string>(value: T, min: T | undefined, max: T | undefined) =>
    (min === undefined || value >= min) && (max === undefined || value <= max)
  if (question.type === 'integer' && typeof answer === 'number')
    return within(answer, question.min, question.max)
  if (question.type === 'date' && typeof answer === 'string')
    return within(answer, question.min, question.max)
  if (question.type === 'text' && typeof answer === 'string')
    return within(answer.length, question.minLength, question.maxLength)
  if (question.type !== 'choices' || !Array.isArray(answer)) return true
  const alone = question.options?.some(o => o.alone && answer.includes(o.code)) === true
  return within(answer.length, question.least, question.most) && !(alone && answer.length > 1)
}

const pick = <T>(items: readonly T[]) => fc.constantFrom(...items)
const q = (text: string) => JSON.stringify(text)

/** A choice compared to another, or to a code where there is no other. */
function choicePair(questions: readonly Asked[], code: string): fc.Arbitrary<string> {
  const others = questions.filter(o => o.kind === 'choice' && o.code !== code)
  if (others.length === 0) return pick(CODES).map(c => `${code} = ${q(c)}`)
  return pick(others).map(o => `${code} = ${o.code}`)
}

function leaf(questions: readonly Asked[]): fc.Arbitrary<string> {
  if (questions.length === 0) return pick(['true', 'false'])
  return pick(questions).chain(({ code, kind }) => {
    const blank = pick([`${code} = null`, `${code} != null`])
    switch (kind) {
      case 'yesNo':
        return fc.oneof(pick([`${code} = true`, `${code} = false`, code, `${code} != true`]), blank)
      case 'choice':
        return fc.oneof(
          pick(CODES).map(c => `${code} = ${q(c)}`),
          pick(CODES).map(c => `${code} != ${q(c)}`),
          fc.subarray(CODES, { minLength: 1 }).map(cs => `${code} in [${cs.map(q).join(', ')}]`),
          choicePair(questions, code),
          blank,
        )
      case 'choices':
        return fc.oneof(
          pick(CODES).map(c => `list contains(${code}, ${q(c)})`),
          fc.tuple(pick(['=', '<', '>=', '!=']), pick(NUMBERS)).map(([op, n]) => `count(${code}) ${op} ${n}`),
          blank,
        )
      case 'value':
        return fc.oneof(
          sums(questions),
          fc.tuple(pick(['=', '<', '>']), pick(NUMBERS)).map(([op, n]) => `${code} ${op} ${n}`),
          blank,
        )
      case 'integer':
        return fc.oneof(
          sums(questions),
          fc
            .tuple(pick(['=', '!=', '<', '<=', '>', '>=']), pick([...NUMBERS, -1, 4, 1.5]))
            .map(([op, n]) => `${code} ${op} ${n}`),
          fc.tuple(pick(NUMBERS), pick(NUMBERS)).map(([a, b]) => `${code} in [${a}..${b}]`),
          fc.tuple(pick(NUMBERS), pick(NUMBERS)).map(([a, b]) => `${code} between ${a} and ${b}`),
          blank,
        )
      case 'text':
        return fc.oneof(
          pick([`contains(${code}, "k")`, `string length(${code}) < 3`, `string length(${code}) >= 3`]),
          pick(TEXTS).map(t => `${code} = ${q(t)}`),
          pick(TEXTS).map(t => `${code} != ${q(t)}`),
          blank,
        )
      case 'money':
        return fc.oneof(amountLeaf(questions, code), blank)
      case 'date':
        return fc.oneof(
          days(questions),
          fc
            .tuple(pick(['=', '<', '<=', '>', '>=', '!=']), pick(DAYS))
            .map(([op, d]) => `${code} ${op} @${q(d)}`),
          blank,
        )
    }
  })
}

/** A number made from the answers. */
export function numeric(questions: readonly Asked[]): fc.Arbitrary<string> {
  const numbers = questions.filter(o => o.kind === 'integer' || o.kind === 'value').map(o => o.code)
  const many = questions.filter(o => o.kind === 'choices').map(o => `count(${o.code})`)
  const one = pick([...numbers, ...many, '1', '2'])
  return fc.oneof(
    fc.tuple(one, pick(['+', '-']), one).map(([a, op, b]) => `(${a} ${op} ${b})`),
    fc.tuple(pick(['2', '0.5', '-1']), one).map(([n, a]) => `(${n} * ${a})`),
    fc.tuple(pick(['max', 'min', 'sum']), one, one).map(([f, a, b]) => `${f}(${a}, ${b})`),
    one.map(a => `abs(${a} - 2)`),
    one.map(a => `modulo(${a}, 2)`),
    one.map(a => `floor(${a} / 2)`),
    fc.tuple(one, one, one).map(([a, b, c]) => `(if ${a} > ${b} then ${c} else ${b})`),
  )
}

const sums = (questions: readonly Asked[]) =>
  fc
    .tuple(numeric(questions), pick(['=', '!=', '<', '<=', '>', '>=']), numeric(questions))
    .map(([a, op, b]) => `${a} ${op} ${b}`)

/** A condition over the questions given. */
export function condition(questions: readonly Asked[], depth = 2): fc.Arbitrary<string> {
  if (depth === 0) return leaf(questions)
  const inner = condition(questions, depth - 1)
  return fc.oneof(
    { weight: 3, arbitrary: leaf(questions) },
    {
      weight: 2,
      arbitrary: fc.tuple(inner, pick(['and', 'or']), inner).map(([a, op, b]) => `(${a}) ${op} (${b})`),
    },
    { weight: 1, arbitrary: inner.map(a => `not(${a})`) },
    {
      weight: 1,
      arbitrary: fc.tuple(inner, inner, inner).map(([a, b, c]) => `(if ${a} then ${b} else ${c})`),
    },
    { weight: 1, arbitrary: fc.tuple(inner, inner).map(([a, b]) => `(${a}) = (${b})`) },
  )
}

/** `freq` is one in how many are left out. */
const maybe = <T>(arbitrary: fc.Arbitrary<T>, rarely = false) =>
  fc.option(arbitrary, { nil: undefined, freq: rarely ? 2 : 3 })

function question(asked: Asked, usable: readonly Asked[]): fc.Arbitrary<Item> {
  if (asked.kind === 'value')
    return fc
      .record({ value: numeric(usable), shownWhen: maybe(condition(usable)) })
      .map(rules => strip({ kind: 'question', code: asked.code, label: asked.code, type: 'value', ...rules }))
  return fc
    .record({
      shownWhen: maybe(condition(usable)),
      required: fc.oneof(fc.constant(undefined), fc.constant(true as const), condition(usable, 1)),
      check: maybe(checkOf(asked, usable), true),
    })
    .chain(({ check, ...rules }) =>
      limitsOf(asked.kind).map(limits =>
        strip({
          kind: 'question',
          code: asked.code,
          label: asked.code,
          ...BASE[asked.kind],
          ...limits,
          ...rules,
          ...check,
        }),
      ),
    )
}

/** One check of a question; of numbers and dates, one in three is a limit that is worked out. */
function checkOf(asked: Asked, usable: readonly Asked[]): fc.Arbitrary<Record<string, unknown>> {
  const check = condition([...usable, asked], 1).map(rule => ({ validWhen: [{ rule, message: 'No.' }] }))
  const days = usable.filter(a => a.kind === 'date').map(a => a.code)
  const limits: Partial<Record<Kind, fc.Arbitrary<string>>> = {
    integer: numeric(usable),
    date: pick([...days, ...days.map(day => `${day} + duration("P1D")`), '@"2026-05-02"']),
  }
  const bound = limits[asked.kind]?.map(atLeast => ({ atLeast }))
  return bound ? fc.oneof({ weight: 2, arbitrary: check }, { weight: 1, arbitrary: bound }) : check
}

/** Limits of one question in four; they may cross, so that no answer fits. */
function limitsOf(kind: Kind): fc.Arbitrary<Record<string, unknown>> {
  const none = fc.constant({})
  const limits: Partial<Record<Kind, fc.Arbitrary<Record<string, unknown>>>> = {
    integer: fc.record({ min: pick(NUMBERS), max: pick(NUMBERS) }),
    date: fc.record({ min: pick(DAYS), max: pick(DAYS) }),
    text: fc.record({ minLength: maybe(pick(LENGTHS)), maxLength: maybe(pick(LENGTHS)) }),
    choices: fc
      .record({ least: maybe(pick(LENGTHS)), most: maybe(pick(LENGTHS)), alone: maybe(pick(CODES)) })
      .map(({ alone, ...counts }) => ({
        ...counts,
        options: OPTIONS.map(o => (o.code === alone ? { ...o, alone: true } : o)),
      })),
  }
  return fc.oneof({ weight: 3, arbitrary: none }, { weight: 1, arbitrary: limits[kind] ?? none })
}

const OPTIONS = CODES.map(code => ({ code, label: code.toUpperCase() }))

const BASE: Record<Kind, Pick<Question, 'type'> & Record<string, unknown>> = {
  yesNo: { type: 'yesNo' },
  choice: { type: 'choice', options: OPTIONS },
  choices: { type: 'choices', options: OPTIONS },
  integer: { type: 'integer', min: 0, max: 3 },
  value: { type: 'value' },
  money: AMOUNT,
  text: { type: 'text' },
  date: { type: 'date', min: '2026-05-01', max: '2026-05-03' },
}

/** Takes undefined keys away, as a definition file would not have them. */
function strip(record: Record<string, unknown>): Item {
  return JSON.parse(JSON.stringify(record)) as Item
}

/** Forms of two or three sections with up to five questions, groups, routes and skips, whose rules name only what they may. */
export const smallForm: fc.Arbitrary<Form> = fc
  .record({
    kinds: fc.array(
      pick<Kind>([
        'yesNo',
        'choice',
        'choices',
        'integer',
        'integer',
        'text',
        'date',
        'date',
        'money',
        'value',
      ]),
      { minLength: 2, maxLength: 5 },
    ),
    sections: fc.integer({ min: 1, max: 3 }),
  })
  .chain(({ kinds, sections }) => {
    const asked = kinds.map((kind, i): Asked => ({ code: `q${i}`, kind }))
    const sectionOf = (i: number) => Math.min(sections - 1, Math.floor((i * sections) / asked.length))
    return fc
      .tuple(...Array.from({ length: sections }, (_, s) => sectionArbitrary(s, sections, asked, sectionOf)))
      .map((made): Form => ({ tobbin: 2, code: 'random', title: 'Random', sections: made }))
  })

function routesFrom(s: number, sections: number, usable: readonly Asked[]) {
  const later = Array.from({ length: sections - 1 - s }, (_, i) => `s${s + 1 + i}`)
  const route = fc.record({ when: condition(usable, 1), to: pick([...later, 'finish']) })
  return fc.array(route, { minLength: 1, maxLength: 2 })
}

function sectionArbitrary(
  s: number,
  sections: number,
  asked: readonly Asked[],
  sectionOf: (i: number) => number,
): fc.Arbitrary<Section> {
  const here = asked.filter((_, i) => sectionOf(i) === s)
  const before = asked.filter((_, i) => sectionOf(i) < s)
  const items =
    here.length === 0
      ? fc.constant<Item[]>([])
      : fc.tuple(
          ...here.map((a, i) => {
            const above = [...before, ...here.slice(0, i)]
            if (a.kind === 'value') return question(a, above)
            return skipping(question(a, above), condition([...above, a], 1), {
              after: asked.slice(asked.indexOf(a) + 1),
              here: s,
              sections,
            })
          }),
        )
  return fc
    .record({
      items,
      shownWhen: before.length > 0 ? maybe(condition(before, 1), true) : fc.constant(undefined),
      note: maybe(condition([...before, ...here])),
      group: maybe(condition(before, 1), true),
      routes:
        s < sections - 1
          ? maybe(routesFrom(s, sections, [...before, ...here]), true)
          : fc.constant(undefined),
    })
    .map(({ items, shownWhen, note, group, routes }): Section => {
      const grouped: Item[] =
        group !== undefined && items.length > 1
          ? [
              items[0]!,
              { kind: 'group', code: `g${s}`, title: 'Group', shownWhen: group, items: items.slice(1) },
            ]
          : items
      return {
        code: `s${s}`,
        title: `Section ${s}`,
        ...(shownWhen === undefined ? {} : { shownWhen }),
        items: [
          ...grouped,
          { kind: 'note', code: `n${s}`, text: 'Note', ...(note === undefined ? {} : { shownWhen: note }) },
        ],
        ...(routes === undefined ? {} : { routes }),
      }
    })
}

/** The questions of a random form with their kinds. */
export const askedOf = (form: Form): Asked[] =>
  questionsOf(form).flatMap(({ code, type }) => (isKind(type) ? [{ code, kind: type }] : []))

export function questionsOf(form: Form): Question[] {
  const found: Question[] = []
  const visit = (items: readonly Item[]) => {
    for (const item of items) {
      if (item.kind === 'question') found.push(item)
      if (item.kind === 'group') visit(item.items)
    }
  }
  for (const s of form.sections) visit(s.items)
  return found
}
