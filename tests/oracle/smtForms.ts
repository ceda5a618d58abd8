import fc from 'fast-check'
import type { Form, Item, Section } from '../../core/form/definition'

/**
 * Random forms with arithmetic over large ranges, each said twice from the start: in the language of forms, and in SMT-LIB 2.6 for a solver that
 * shares nothing with the prover.
 */

/** A number: when it has a value, and the value as a real. */
interface Numeric {
  feel: string
  given: string
  value: string
}
/** A condition: when it is true, and when false. */
interface Condition {
  feel: string
  t: string
  f: string
}
type Kind = 'integer' | 'decimal' | 'date' | 'choices' | 'yesNo' | 'value'
interface Asked {
  code: string
  kind: Kind
}

const pick = <T>(...items: T[]) => fc.constantFrom(...items)
function real(n: number): string {
  if (n < 0) return `(- ${real(-n)})`
  return Number.isInteger(n) ? `${n}.0` : `${n}`
}
const both = (a: Numeric, b: Numeric) => `(and ${a.given} ${b.given})`
const OPTIONS = ['a', 'b', 'c']
const FIRST_DAY = Date.UTC(2026, 0, 1) / 86_400_000
const dayText = (n: number) => new Date((FIRST_DAY + n) * 86_400_000).toISOString().slice(0, 10)

const constant = (n: number): Numeric => ({ feel: `${n}`, given: 'true', value: real(n) })
/** The value of an answer as a real number. */
function valueOf(code: string, kind: Kind): string {
  if (kind === 'value') return `v_${code}`
  return kind === 'decimal' ? `(/ (to_real v_${code}) 100.0)` : `(to_real v_${code})`
}
const answerOf = ({ code, kind }: Asked): Numeric =>
  kind === 'choices'
    ? { feel: `count(${code})`, given: `a_${code}`, value: `(to_real v_${code})` }
    : {
        feel: code,
        given: `a_${code}`,
        value: valueOf(code, kind),
      }

function simple(asked: readonly Asked[]): fc.Arbitrary<Numeric> {
  const numbers = asked.filter(a => !['date', 'yesNo'].includes(a.kind)).map(answerOf)
  const dates = asked.filter(a => a.kind === 'date')
  const days =
    dates.length < 2
      ? []
      : [
          fc.tuple(pick(...dates), pick(...dates)).map(([a, b]): Numeric => ({
            feel: `(${a.code} - ${b.code}).days`,
            given: `(and a_${a.code} a_${b.code})`,
            value: `(to_real (- v_${a.code} v_${b.code}))`,
          })),
        ]
  return fc.oneof(
    fc.integer({ min: -40, max: 400 }).map(constant),
    ...(numbers.length > 0 ? [pick(...numbers), pick(...numbers)] : []),
    ...days,
  )
}

function numeric(asked: readonly Asked[]): fc.Arbitrary<Numeric> {
  const one = simple(asked)
  const two = fc.tuple(one, one)
  return fc.oneof(
    one,
    fc.tuple(one, pick('+', '-'), one).map(([a, op, b]): Numeric => ({
      feel: `(${a.feel} ${op} ${b.feel})`,
      given: both(a, b),
      value: `(${op} ${a.value} ${b.value})`,
    })),
    fc.tuple(pick(2, 3, 0.5, -1, 1.25), one).map(([n, a]): Numeric => ({
      feel: `(${n} * ${a.feel})`,
      given: a.given,
      value: `(* ${real(n)} ${a.value})`,
    })),
    one.map((a): Numeric => ({
      feel: `abs(${a.feel})`,
      given: a.given,
      value: `(ite (< ${a.value} 0.0) (- ${a.value}) ${a.value})`,
    })),
    fc.tuple(pick('min', 'max'), two).map(([f, [a, b]]): Numeric => ({
      feel: `${f}(${a.feel}, ${b.feel})`,
      given: both(a, b),
      value: `(ite (${f === 'min' ? '<' : '>'} ${a.value} ${b.value}) ${a.value} ${b.value})`,
    })),
    fc.tuple(one, pick(2, 3, 7)).map(([a, k]): Numeric => ({
      feel: `modulo(${a.feel}, ${k})`,
      given: a.given,
      value: `(- ${a.value} (* ${real(k)} (to_real (to_int (/ ${a.value} ${real(k)})))))`,
    })),
    fc.tuple(one, pick(2, 4)).map(([a, k]): Numeric => ({
      feel: `floor(${a.feel} / ${k})`,
      given: a.given,
      value: `(to_real (to_int (/ ${a.value} ${real(k)})))`,
    })),
    fc.tuple(two, two).map(([[a, b], [c, d]]): Numeric => {
      const test = `(and ${both(a, b)} (> ${a.value} ${b.value}))`
      return {
        feel: `(if ${a.feel} > ${b.feel} then ${c.feel} else ${d.feel})`,
        given: `(ite ${test} ${c.given} ${d.given})`,
        value: `(ite ${test} ${c.value} ${d.value})`,
      }
    }),
  )
}

function compared(asked: readonly Asked[]): fc.Arbitrary<Condition> {
  return fc
    .tuple(numeric(asked), pick('=', '!=', '<', '<=', '>', '>='), numeric(asked))
    .map(([a, op, b]): Condition => {
      const feel = `${a.feel} ${op} ${b.feel}`
      // Two blanks are equal, a blank and a value are not; any other comparison with a blank is unknown.
      const same = `(or (and ${both(a, b)} (= ${a.value} ${b.value})) (not (or ${a.given} ${b.given})))`
      if (op === '=') return { feel, t: same, f: `(not ${same})` }
      if (op === '!=') return { feel, t: `(not ${same})`, f: same }
      const holds = `(${op} ${a.value} ${b.value})`
      return { feel, t: `(and ${both(a, b)} ${holds})`, f: `(and ${both(a, b)} (not ${holds}))` }
    })
}

function leaf(asked: readonly Asked[]): fc.Arbitrary<Condition> {
  const yesNo = asked
    .filter(a => a.kind === 'yesNo')
    .map(({ code }): Condition => ({
      feel: `${code}`,
      t: `(and a_${code} b_${code})`,
      f: `(and a_${code} (not b_${code}))`,
    }))
  const blank = asked.map(({ code }): Condition => ({
    feel: `${code} = null`,
    t: `(not a_${code})`,
    f: `a_${code}`,
  }))
  return fc.oneof(
    { arbitrary: compared(asked), weight: 4 },
    ...(yesNo.length > 0 ? [{ arbitrary: pick(...yesNo), weight: 1 }] : []),
    ...(blank.length > 0 ? [{ arbitrary: pick(...blank), weight: 1 }] : []),
  )
}

function condition(asked: readonly Asked[]): fc.Arbitrary<Condition> {
  const one = leaf(asked)
  return fc.oneof(
    one,
    one.map((c): Condition => ({ feel: `not(${c.feel})`, t: c.f, f: c.t })),
    fc.tuple(one, pick('and' as const, 'or' as const), one).map(([a, word, b]): Condition => {
      const other = word === 'and' ? 'or' : 'and'
      return {
        feel: `(${a.feel}) ${word} (${b.feel})`,
        t: `(${word} ${a.t} ${b.t})`,
        f: `(${other} ${a.f} ${b.f})`,
      }
    }),
  )
}
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined })

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

/** One question in both languages: its definition, and its declarations. */
function said(
  { asked: { code, kind }, low, high, shown, required, valid, value }: Drawn,
  around: string,
): { item: Item; smt: string[]; complete: string } {
  const common = { kind: 'question' as const, code, label: code, ...(shown ? { shownWhen: shown.feel } : {}) }
  const inPlay = `(define-fun p_${code} () Bool (and ${around} ${shown?.t ?? 'true'}))`
  if (kind === 'value')
    return {
      item: { ...common, type: 'value', value: value.feel },
      smt: [
        inPlay,
        `(define-fun a_${code} () Bool (and p_${code} ${value.given}))`,
        `(define-fun v_${code} () Real ${value.value})`,
      ],
      complete: 'true',
    }
  const rules = {
    ...(required === undefined ? {} : { required: required === true ? (true as const) : required.feel }),
    ...(valid ? { validWhen: [{ rule: valid.feel, message: 'No.' }] } : {}),
  }
  const needed = neededIn(required)
  const complete = `(=> p_${code} (and (=> ${needed} a_${code}) ${valid ? `(not ${valid.f})` : 'true'}))`
  const smt = [`(declare-const a_${code} Bool)`, inPlay, `(assert (=> a_${code} p_${code}))`]
  switch (kind) {
    case 'integer':
    case 'decimal':
      return {
        item: {
          ...common,
          ...rules,
          type: kind,
          min: low,
          max: high,
          ...(kind === 'decimal' ? { decimals: 2 } : {}),
        } as Item,
        smt: [
          `(declare-const v_${code} Int)`,
          ...smt,
          `(assert (and (<= ${whole(kind === 'decimal' ? low * 100 : low)} v_${code}) (<= v_${code} ${whole(kind === 'decimal' ? high * 100 : high)})))`,
        ],
        complete,
      }
    case 'date':
      return {
        item: { ...common, ...rules, type: 'date', min: dayText(0), max: dayText(high) },
        smt: [
          `(declare-const v_${code} Int)`,
          ...smt,
          `(assert (and (<= 0 v_${code}) (<= v_${code} ${high})))`,
        ],
        complete,
      }
    case 'choices': {
      const chosen = OPTIONS.map(o => `o_${code}_${o}`)
      return {
        item: { ...common, ...rules, type: 'choices', options: OPTIONS.map(o => ({ code: o, label: o })) },
        smt: [
          ...chosen.map(o => `(declare-const ${o} Bool)`),
          `(define-fun v_${code} () Int (+ ${chosen.map(o => `(ite ${o} 1 0)`).join(' ')}))`,
          ...smt,
          `(assert (= a_${code} (or ${chosen.join(' ')})))`,
        ],
        complete,
      }
    }
    case 'yesNo':
      return {
        item: { ...common, ...rules, type: 'yesNo' },
        smt: [`(declare-const b_${code} Bool)`, ...smt],
        complete,
      }
  }
}
const whole = (n: number) => (n < 0 ? `(- ${-n})` : `${n}`)

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
      .map(({ questions, second, notes, promise }): Said => {
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
      })
  })
