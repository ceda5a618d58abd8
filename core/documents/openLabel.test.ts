import fc from 'fast-check'
import { expect, it } from 'vitest'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import type { Answers } from '../form/answers'
import { readForm } from '../form/read'
import { openLabel } from './blankLabel'
import { isPrinted, scopeOf } from './templateScope'

const q = (type: string, code: string, more: object = {}) => ({
  ...{ kind: 'question', type, code, label: `The ${code}` },
  ...more,
})
const { form } = readForm({
  ...{ tobbin: 2, code: 'oven', title: 'Oven' },
  sections: [
    {
      ...{ code: 'bread', title: 'Bread' },
      items: [
        q('yesNo', 'rye'),
        q('integer', 'loaves', { min: 0, max: 2 }),
        q('yesNo', 'sliced', { shownWhen: 'rye = true' }),
        q('value', 'pieces', { value: 'if sliced then loaves * 12 else loaves' }),
      ],
      routes: [{ when: 'loaves = 0', to: 'finish' }],
    },
    {
      ...{ code: 'fetch', title: 'Fetch', shownWhen: 'pieces > 1' },
      items: [q('yesNo', 'brought'), q('yesNo', 'early', { shownWhen: 'brought = true' })],
    },
  ],
})
if (!form) throw new Error('The form does not fit.')
const plan = planOf(form)
const CHOICES: Record<string, (boolean | number)[]> = {
  rye: [true, false],
  loaves: [0, 1, 2],
  sliced: [true, false],
  brought: [true, false],
  early: [true, false],
}
const atom = fc.constantFrom(
  'rye = true',
  'not(rye)',
  'loaves > 1',
  'loaves = null',
  'sliced',
  'sliced != null',
  'pieces > 12',
  'brought',
  'brought = null',
  'early != null',
  '1 < 2',
)
const condition = fc.oneof(
  atom,
  fc.tuple(atom, fc.constantFrom('and', 'or'), atom).map(parts => parts.join(' ')),
  fc.tuple(atom, atom).map(([a, b]) => `not(${a} or ${b})`),
)
const answers: fc.Arbitrary<Answers> = fc.record(
  { rye: fc.boolean(), loaves: fc.nat(2), sliced: fc.boolean(), brought: fc.boolean(), early: fc.boolean() },
  { requiredKeys: [] },
)
const scopeFor = (given: Answers) => scopeOf(fill(plan, given, '2026-11-24'))

/** Answers with every question of some answered that is asked and open. */
function* completions(given: Answers): Generator<Answers> {
  const { frame } = scopeFor(given)
  const open = plan.questions.find(
    ({ slot, place }) => frame.inPlay[place.order] && (frame.values[slot] ?? null) === null,
  )
  if (!open) yield given
  else
    for (const answer of CHOICES[open.place.code] ?? [])
      yield* completions({ ...given, [open.place.code]: answer })
}

it('a clause that is not marked stays as it is, however what is open is answered', () => {
  fc.assert(
    fc.property(answers, condition, (given, when) => {
      const scope = scopeFor(given)
      if (openLabel(scope, when) !== null) return
      for (const all of completions(given))
        expect(isPrinted(scopeFor(all), when)).toBe(isPrinted(scope, when))
    }),
    { numRuns: 1000 },
  )
})

it('a clause that rests on what is open names it', () => {
  const label = (given: Answers, when: string) => openLabel(scopeFor(given), when)
  expect(label({}, 'rye = true')).toBe('‹a clause rests on ‹The rye››')
  expect(label({ rye: false }, 'rye = true')).toBeNull()
  expect(label({ rye: true }, 'rye = true or loaves > 1')).toBeNull()
  expect(label({ rye: true }, 'rye = true and loaves > 1')).toBe('‹a clause rests on ‹The loaves››')
  expect(label({ loaves: 0 }, 'sliced != null')).toBe('‹a clause rests on ‹The rye››')
  expect(label({ rye: false, loaves: 1 }, 'early')).toBeNull()
  expect(label({ rye: false, loaves: 2 }, 'early')).toBe('‹a clause rests on ‹The brought››')
  expect(label({ rye: true, loaves: 2 }, 'pieces > 12')).toBe('‹a clause rests on ‹The sliced››')
})
