import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayNumber, isoFromDay } from '../../expressions/dates'
import type { Answers } from '../../form/answers'
import type { Form, Item } from '../../form/definition'
import { expectSame, proved, tried } from '../../../tests/support/tried'

const RUNS = Math.ceil(Number(process.env.PROVE_FORMS ?? 1500) / 15)
/** Days around which months and years are of uneven length. */
const TURNS = ['2024-02-27', '2023-02-26', '2024-12-29', '2026-01-28', '2027-08-30'].map(
  day => dayNumber(day) ?? 0,
)
const WIDTH = 8

const op = fc.constantFrom('=', '!=', '<', '<=', '>', '>=')
const pair = fc.constantFrom(['a', 'b'], ['b', 'a'])
const test: fc.Arbitrary<string> = fc.oneof(
  fc
    .tuple(pair, op, fc.integer({ min: -2, max: 4 }))
    .map(([[x, y], o, n]) => `years and months duration(${x}, ${y}).years ${o} ${n}`),
  fc
    .tuple(pair, op, fc.integer({ min: 0, max: 40 }))
    .map(
      ([[x, y], o, n]) => `years and months duration(${x}, ${y}) ${o} @"P${Math.floor(n / 12)}Y${n % 12}M"`,
    ),
  fc
    .tuple(pair, fc.constantFrom('+', '-'), fc.integer({ min: 1, max: 30 }), op)
    .map(([[x, y], sign, n, o]) => `${x} ${sign} @"P${n}M" ${o} ${y}`),
  fc
    .tuple(pair, op, fc.integer({ min: -400, max: 400 }))
    .map(([[x, y], o, n]) => `(${x} - ${y}).days ${o} ${n}`),
  fc
    .tuple(fc.constantFrom('a', 'b'), op, fc.integer({ min: 1, max: 7 }))
    .map(([x, o, n]) => `${x}.weekday ${o} ${n}`),
  fc
    .tuple(fc.constantFrom('a', 'b'), op, fc.integer({ min: 2022, max: 2027 }))
    .map(([x, o, n]) => `${x}.year ${o} ${n}`),
  fc.tuple(pair, op).map(([[x, y], o]) => `${x} ${o} ${y}`),
)
const condition = fc.oneof(
  test,
  fc.tuple(test, fc.constantFrom('and', 'or'), test).map(([x, word, y]) => `(${x}) ${word} (${y})`),
  fc.tuple(test, test, test).map(([x, y, z]) => `(${x}) and (${y}) and (${z})`),
  test.map(x => `not(${x})`),
)

const days = (from: number) => [undefined, ...Array.from({ length: WIDTH }, (_, i) => isoFromDay(from + i))]
function* all(first: number, second: number): Generator<Answers> {
  for (const a of days(first))
    for (const b of days(second))
      yield { ...(a === undefined ? {} : { a }), ...(b === undefined ? {} : { b }) }
}

describe('ages, months and days between two dates, against brute force', () => {
  it('never shown and promises: the same verdict', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...TURNS),
        fc.constantFrom(...TURNS),
        fc.array(condition, { minLength: 2, maxLength: 3 }),
        condition,
        fc.option(test, { nil: undefined }),
        (first, second, shown, holds, valid) => {
          const asked = (code: string, from: number, more: object = {}) =>
            ({
              kind: 'question',
              type: 'date',
              code,
              label: code,
              min: isoFromDay(from),
              max: isoFromDay(from + WIDTH - 1),
              ...more,
            }) as Item
          const form: Form = {
            tobbin: 2,
            code: 'f',
            title: 'F',
            promises: [{ code: 'p', text: 'P', holds }],
            sections: [
              {
                code: 's',
                title: 'S',
                items: [
                  asked('a', first),
                  asked(
                    'b',
                    second,
                    valid === undefined ? {} : { validWhen: [{ rule: valid, message: 'No.' }] },
                  ),
                  ...shown
                    .slice(1)
                    .map((shownWhen, i): Item => ({ kind: 'note', code: `n${i}`, text: 'Note', shownWhen })),
                ],
              },
              {
                code: 't',
                title: 'T',
                items: [{ kind: 'note', code: 'later', text: 'Note', shownWhen: shown[0] ?? 'true' }],
              },
            ],
          }
          expectSame(form, all(first, second))
        },
      ),
      { numRuns: RUNS },
    )
  })
})

const compared = fc
  .tuple(fc.constantFrom('years', 'months'), op)
  .map(([unit, o]) => (unit === 'years' ? `a_years ${o} b_years` : `a_months ${o} b_months`))
const order = fc.tuple(op).map(([o]) => `a ${o} b`)

describe('two ages on the same day', () => {
  it('what happens is never called impossible, and what never happens never possible', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.constantFrom(...TURNS), fc.constantFrom(...TURNS), fc.constantFrom(...TURNS)),
        compared,
        fc.option(order, { nil: 'true' }),
        (turns, test, also) => {
          const asked = ['a', 'b', 'c'].map((code, i) => {
            const from = turns[i] ?? 0
            return {
              kind: 'question',
              type: 'date',
              code,
              label: code,
              min: isoFromDay(from),
              max: isoFromDay(from + 3),
            } as Item
          })
          const ages = ['a', 'b'].flatMap(x =>
            [
              ['years', `years and months duration(${x}, c).years`],
              ['months', `years and months duration(${x}, c)`],
            ].map(
              ([unit = '', value]): Item =>
                ({ kind: 'question', type: 'value', code: `${x}_${unit}`, label: x, value }) as Item,
            ),
          )
          const note: Item = {
            kind: 'note',
            code: 'told',
            text: 'Told',
            shownWhen: `(${test}) and (${also})`,
          }
          const form: Form = {
            tobbin: 2,
            code: 'two',
            title: 'Two',
            sections: [{ code: 's', title: 'S', items: [...asked, ...ages, note] }],
          }
          const { inquiry, shown, isOpen } = proved(form)
          const answers = [...threeDays(turns)]
          const isSeen = tried(inquiry, answers).seen.has('told')
          if (isSeen || !isOpen) expect(shown.has('told')).toBe(isSeen)
        },
      ),
      { numRuns: RUNS },
    )
  })
})

function* threeDays(turns: readonly number[]): Generator<Answers> {
  const [a = [], b = [], c = []] = turns.map(from => days(from).slice(0, 5))
  for (const x of a)
    for (const y of b)
      for (const z of c)
        yield {
          ...(x === undefined ? {} : { a: x }),
          ...(y === undefined ? {} : { b: y }),
          ...(z === undefined ? {} : { c: z }),
        }
}
