import fc from 'fast-check'
import { describe, it } from 'vitest'
import type { Answer, Answers } from '../../form/answers'
import type { Form, Item } from '../../form/definition'
import { expectSame } from '../../../tests/support/tried'

const RUNS = Math.ceil(Number(process.env.PROVE_FORMS ?? 1500) / 10)
const number = fc
  .tuple(fc.constantFrom('=', '!=', '<', '>='), fc.integer({ min: 0, max: 6 }))
  .map(parts => parts.join(' '))
const compared = (...subjects: string[]) =>
  fc.tuple(fc.constantFrom(...subjects), number).map(parts => parts.join(' '))
const leaf = fc.oneof(
  fc.constantFrom(
    'care.hull = "low"',
    'care.deck != "high"',
    'care.hull = care.deck',
    'care.deck = null',
    'care = null',
    'care.hull in ["low", "high"]',
  ),
  compared('sum(care.points)'),
  fc.constantFrom(
    'wishes[1] = "sun"',
    'wishes[2] != "calm"',
    'list contains(wishes, "wind")',
    'wishes = null',
    'not(wishes[1] = "sun") and wishes != null',
  ),
  compared('crew'),
  fc.constantFrom('crew = null', 'crew != null'),
  fc.constantFrom(
    'size = "tall"',
    'size = "red"',
    'size != "blue"',
    'size = null',
    'size = colour',
    'size in ["tall", "blue"]',
    'label = "none"',
    'label != size',
  ),
  fc.constantFrom('afloat = true', 'colour = "red"', 'afloat = null'),
)
const condition = fc.oneof(
  leaf,
  leaf.map(l => `not(${l})`),
  fc.tuple(leaf, fc.constantFrom('and', 'or'), leaf).map(([a, word, b]) => `(${a}) ${word} (${b})`),
)
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined })
const options = (...codes: string[]) => codes.map(code => ({ code, label: code }))
const without = (record: Record<string, unknown>) =>
  JSON.parse(JSON.stringify({ kind: 'question', label: 'Asked', ...record })) as Item

/** A group with the number of the crew; `locked`: the whole group is read-only when. */
const people = (locked: string | undefined, rules: Record<string, unknown>): Item => ({
  kind: 'group',
  code: 'people',
  title: 'People',
  ...(locked === undefined ? {} : { readOnly: locked }),
  items: [without({ type: 'integer', code: 'crew', min: 0, max: 2, ...rules })],
})

const form = fc
  .record({
    required: fc.record({
      care: maybe(fc.constant(true)),
      wishes: maybe(fc.constantFrom(true, 'afloat = true')),
      crew: maybe(fc.constantFrom(true, 'colour = "red"')),
    }),
    care: maybe(fc.constantFrom('afloat = true', 'colour != "red"')),
    middle: fc.constantFrom({}, { points: 2 }),
    wishes: maybe(fc.constantFrom('care.hull = "high"', 'sum(care.points) > 3')),
    lock: fc.constantFrom(true, 'afloat = true', 'colour = "red"', undefined),
    begins: maybe(fc.constantFrom('1', '2')),
    group: maybe(fc.constantFrom('afloat = false', 'care.deck = "low"')),
    size: fc.constantFrom(
      'if afloat = true then "tall" else colour',
      'if care.hull = "low" then "tall" else if colour = "red" then "blue" else null',
      'if afloat = null then "none" else colour',
    ),
    label: fc.constantFrom('if size = "tall" then "none" else size', '"none"'),
    sized: maybe(fc.constantFrom('afloat = true')),
    notes: fc.array(condition, { minLength: 1, maxLength: 3 }),
    later: condition,
    second: maybe(condition),
    holds: condition,
  })
  .map((d): Form => ({
    tobbin: 2,
    code: 'f',
    title: 'F',
    promises: [{ code: 'p', text: 'P', holds: d.holds }],
    sections: [
      {
        code: 's',
        title: 'S',
        items: [
          without({ type: 'yesNo', code: 'afloat' }),
          without({ type: 'choice', code: 'colour', options: options('red', 'blue') }),
          without({
            type: 'grid',
            code: 'care',
            rows: options('hull', 'deck'),
            options: [
              { code: 'low', label: 'Low', points: 1 },
              { code: 'mid', label: 'Mid', ...d.middle },
              { code: 'high', label: 'High', points: 3 },
            ],
            required: d.required.care,
            shownWhen: d.care,
          }),
          without({
            type: 'ranking',
            code: 'wishes',
            options: options('sun', 'wind', 'calm'),
            most: 2,
            required: d.required.wishes,
            shownWhen: d.wishes,
          }),
          people(d.group, { readOnly: d.lock, default: d.begins, required: d.required.crew }),
          without({ type: 'value', code: 'size', value: d.size, shownWhen: d.sized }),
          without({ type: 'value', code: 'label', value: d.label }),
          ...d.notes.map((shownWhen, i): Item => ({ kind: 'note', code: `n${i}`, text: 'Note', shownWhen })),
        ],
      },
      {
        code: 't',
        title: 'T',
        ...(d.second === undefined ? {} : { shownWhen: d.second }),
        items: [{ kind: 'note', code: 'later', text: 'Note', shownWhen: d.later }],
      },
    ],
  }))

const ANSWERS: Record<string, readonly (Answer | undefined)[]> = {
  afloat: [undefined, true, false],
  colour: [undefined, 'red', 'blue'],
  care: [
    undefined,
    ...['low', 'mid', 'high', null].flatMap(hull =>
      ['low', 'mid', 'high', null].flatMap(deck =>
        hull === null && deck === null ? [] : [{ ...(hull && { hull }), ...(deck && { deck }) }],
      ),
    ),
  ],
  wishes: [
    undefined,
    ...[
      ['sun', 'wind'],
      ['sun', 'calm'],
      ['wind', 'sun'],
      ['wind', 'calm'],
      ['calm', 'sun'],
      ['calm', 'wind'],
    ],
  ],
  crew: [undefined, null, 0, 1, 2],
}
function* all(codes = Object.keys(ANSWERS), answers: Answers = {}): Generator<Answers> {
  const [code, ...others] = codes
  if (code === undefined) return yield answers
  for (const answer of ANSWERS[code] ?? [])
    yield* all(others, answer === undefined ? answers : { ...answers, [code]: answer })
}

describe('grids, rankings, read-only answers and calculated texts, against brute force', () => {
  it('never shown and promises: the same verdict', () => {
    fc.assert(
      fc.property(form, f => expectSame(f, all())),
      { numRuns: RUNS },
    )
  })
})
