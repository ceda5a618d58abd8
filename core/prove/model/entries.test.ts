import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Answers } from '../../form/answers'
import { seededRandom } from '../../fill/draw'
import type { Form, Item } from '../../form/definition'
import { expectSame, proved, tried } from '../../../tests/support/tried'

const RUNS = Math.ceil(Number(process.env.PROVE_FORMS ?? 1500) / 6)

const op = fc.constantFrom('=', '!=', '<', '<=', '>', '>=')
const small = fc.integer({ min: 0, max: 3 })
const compared = (subject: fc.Arbitrary<string>) => fc.tuple(subject, op, small).map(parts => parts.join(' '))

/** What is asked of one guest, `g` written before its answers. */
const ofGuest = (g: string): fc.Arbitrary<string> =>
  fc.oneof(
    compared(fc.constant(`${g}age`)),
    fc.constantFrom(
      `${g}meal = "fish"`,
      `${g}meal != "meat"`,
      `${g}age = null`,
      `${g}meal in ["fish", "meat"]`,
      `${g}age > n`,
      `${g}half >= 1`,
    ),
    fc
      .tuple(compared(fc.constant(`${g}age`)), fc.constantFrom('and', 'or'), fc.constant(`${g}meal = "fish"`))
      .map(([a, word, b]) => `(${a} ${word} ${b})`),
  )
/** What is asked of all of them. */
const leaf: fc.Arbitrary<string> = fc.oneof(
  fc
    .tuple(fc.constantFrom('some', 'every'), ofGuest('g.'))
    .map(([mode, test]) => `${mode} g in guests satisfies ${test}`),
  fc
    .tuple(fc.constantFrom('some', 'every'), compared(fc.constant('x')))
    .map(([mode, test]) => `${mode} x in guests.age satisfies ${test}`),
  fc.tuple(ofGuest(''), ofGuest('g.')).map(([by, test]) => `some g in guests[${by}] satisfies ${test}`),
  compared(
    fc.constantFrom(
      'count(guests)',
      'sum(guests.age)',
      'max(guests.age)',
      'min(guests.age)',
      'guests[1].age',
      'guests.age[2]',
      'n',
    ),
  ),
  compared(ofGuest('').map(by => `count(guests[${by}])`)),
  compared(ofGuest('').map(by => `sum(guests[${by}].age)`)),
  fc.constantFrom(
    'list contains(guests.meal, "fish")',
    'list contains(guests.age, n)',
    'guests[2].meal = "fish"',
    'guests = null',
    'guests != null',
    'w = true',
    'some g in guests satisfies some h in guests satisfies g.age > h.age',
    'count(guests) > n',
    'every g in guests satisfies count(guests[age > g.age]) < 2',
  ),
)
const condition: fc.Arbitrary<string> = fc.oneof(
  leaf,
  leaf.map(l => `not(${l})`),
  fc.tuple(leaf, fc.constantFrom('and', 'or'), leaf).map(([a, word, b]) => `(${a}) ${word} (${b})`),
)
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined })

interface Drawn {
  min: number
  required: boolean
  age: string | undefined
  meal: string | undefined
  around: string | undefined
  check: string | undefined
  whole: string | undefined
  notes: string[]
  second: string | undefined
  later: string[]
}
const drawn: fc.Arbitrary<Drawn> = fc.record({
  min: fc.constantFrom(0, 0, 1),
  required: fc.boolean(),
  age: maybe(fc.constantFrom('w = true', 'n > 0')),
  meal: maybe(fc.constantFrom('age > 1', 'age != null', 'w = true')),
  around: maybe(fc.constantFrom('w = true', 'n != 1')),
  check: maybe(fc.constantFrom('age != 1', 'meal != "meat" or age = 0', 'age <= n')),
  whole: maybe(leaf),
  notes: fc.array(condition, { minLength: 1, maxLength: 2 }),
  second: maybe(condition),
  later: fc.array(condition, { minLength: 1, maxLength: 2 }),
})
const when = (shownWhen: string | undefined) => (shownWhen === undefined ? {} : { shownWhen })
const note = (code: string, shownWhen: string): Item => ({ kind: 'note', code, text: 'Note', shownWhen })
const formOf = (d: Drawn, max: number): Form => ({
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [
    {
      code: 's',
      title: 'S',
      items: [
        { kind: 'question', type: 'yesNo', code: 'w', label: 'W' },
        { kind: 'question', type: 'integer', code: 'n', label: 'N', min: 0, max: 1 },
        {
          kind: 'group',
          code: 'guests',
          title: 'Guests',
          repeat: { min: d.min, max },
          ...when(d.around),
          ...(d.whole === undefined ? {} : { validWhen: [{ rule: d.whole, message: 'No.' }] }),
          items: [
            {
              kind: 'question',
              type: 'integer',
              code: 'age',
              label: 'Age',
              min: 0,
              max: 2,
              ...when(d.age),
              ...(d.required ? { required: true } : {}),
            },
            {
              kind: 'question',
              type: 'choice',
              code: 'meal',
              label: 'Meal',
              options: [
                { code: 'fish', label: 'Fish' },
                { code: 'meat', label: 'Meat' },
              ],
              ...when(d.meal),
              ...(d.check === undefined ? {} : { validWhen: [{ rule: d.check, message: 'No.' }] }),
            },
            { kind: 'question', type: 'value', code: 'half', label: 'Half', value: 'age / 2' },
          ],
        },
        ...d.notes.map((c, i) => note(`n${i}`, c)),
      ],
    },
    { code: 't', title: 'T', ...when(d.second), items: d.later.map((c, i) => note(`t${i}`, c)) },
  ],
})

const ENTRIES: readonly Answers[] = [undefined, 0, 1, 2].flatMap(age =>
  [undefined, 'fish', 'meat'].map(meal => ({
    ...(age === undefined ? {} : { age }),
    ...(meal === undefined ? {} : { meal }),
  })),
)

/** All answers, with up to so many entries. */
function* allAnswers(min: number, most: number): Generator<Answers> {
  function* lists(n: number): Generator<Answers[]> {
    if (n === 0) return yield []
    for (const rest of lists(n - 1)) for (const entry of ENTRIES) yield [...rest, entry]
  }
  for (let n = min; n <= most; n++)
    for (const guests of lists(n))
      for (const w of [undefined, true, false])
        for (const k of [undefined, 0, 1])
          yield { guests, ...(w === undefined ? {} : { w }), ...(k === undefined ? {} : { n: k }) }
}

/** Some answers with many entries, few kinds of them or all. */
function* manyEntries(seed: number, most: number): Generator<Answers> {
  const next = seededRandom(seed)
  const among = <T>(items: readonly T[]): T => items[Math.floor(next() * items.length)]!
  for (let i = 0; i < 300; i++) {
    const kinds = Array.from({ length: 1 + Math.floor(next() * 4) }, () => among(ENTRIES))
    yield {
      guests: Array.from({ length: 3 + Math.floor(next() * (most - 2)) }, () => among(kinds)),
      w: among([null, true, false]),
      n: among([null, 0, 1]),
    }
  }
}

/** All groups of one guest up to so many, whatever their order. */
function* kindsOf(most: number): Generator<Answers> {
  const kinds = [0, 1, 2].flatMap(age => [true, false].map(pays => ({ age, pays })))
  function* from(first: number, left: number): Generator<Answers[]> {
    yield []
    for (let i = first; left > 0 && i < kinds.length; i++)
      for (const rest of from(i, left - 1)) yield [kinds[i]!, ...rest]
  }
  for (const guests of from(0, most)) if (guests.length > 0) yield { guests }
}

describe('entries of repeating groups, against brute force', () => {
  it('never shown and promises: the same verdict where all entries are told apart', () => {
    fc.assert(
      fc.property(drawn, condition, (d, holds) => {
        const form: Form = { ...formOf(d, 2), promises: [{ code: 'p', text: 'P', holds }] }
        expectSame(form, allAnswers(d.min, 2))
      }),
      { numRuns: RUNS },
    )
  })

  it('nothing that comes into play is called impossible where there may be more entries than are told apart', () => {
    let open = 0
    fc.assert(
      fc.property(drawn, condition, fc.nat(), (d, holds, seed) => {
        const form: Form = { ...formOf(d, 9), promises: [{ code: 'p', text: 'P', holds }] }
        const { inquiry, shown, broken, isOpen } = proved(form)
        const found = tried(inquiry, [...allAnswers(d.min, 2), ...manyEntries(seed, 9)])
        open += isOpen ? 1 : 0
        expect([...found.seen].filter(code => !shown.has(code))).toEqual([])
        if (found.broken) expect(broken || isOpen).toBe(true)
      }),
      { numRuns: RUNS },
    )
    // Many rules about one group ask for more than the entries that are told apart can show, and may stay open.
    expect(open).toBeLessThan(RUNS * 0.5)
  })
})

describe('entries of repeating groups, against brute force', () => {
  it('sums and counts over more entries than are told apart: the same verdict, nearly always decided', () => {
    const some = fc.constantFrom('', '[pays = true]', '[age > 0]', '[age = 2]')
    const total = fc
      .tuple(some, fc.boolean())
      .map(([by, sums]) => (sums ? `sum(guests${by}.age)` : `count(guests${by})`))
    const test = fc.tuple(total, op, fc.integer({ min: 0, max: 13 })).map(parts => parts.join(' '))
    const all = fc.oneof(
      test,
      fc.tuple(test, test).map(([a, b]) => `(${a}) or not(${b})`),
      fc.tuple(total, total, fc.integer({ min: 1, max: 8 })).map(([a, b, n]) => `${a} - ${b} < ${n}`),
    )
    let open = 0
    fc.assert(
      fc.property(all, holds => {
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
                {
                  kind: 'group',
                  code: 'guests',
                  title: 'Guests',
                  repeat: { min: 1, max: 7 },
                  items: [
                    {
                      kind: 'question',
                      type: 'integer',
                      code: 'age',
                      label: 'Age',
                      min: 0,
                      max: 2,
                      required: true,
                    },
                    { kind: 'question', type: 'yesNo', code: 'pays', label: 'Pays', required: true },
                  ],
                },
              ],
            },
          ],
        }
        const { inquiry, broken, isOpen } = proved(form)
        const found = tried(inquiry, kindsOf(7)).broken
        open += isOpen ? 1 : 0
        if (found) expect(broken || isOpen).toBe(true)
        else expect(broken).toBe(false)
      }),
      { numRuns: Math.ceil(RUNS / 3) },
    )
    expect(open).toBeLessThan(Math.max(4, (RUNS / 3) * 0.1))
  })
})
