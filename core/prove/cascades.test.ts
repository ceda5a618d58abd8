import type { Answers } from '../form/answers'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deadEnd } from './checks/deadEnd'
import { neverShown } from './checks/neverShown'
import { unreachableSection } from './checks/unreachableSection'
import { Inquiry } from './goals/inquiry'
import { findingsOf } from './checks/check'
import { fill, offeredNow, problemsIn, type Filled } from '../fill/fill'
import { isOutOfPlay } from './checks/neverInPlay'
import type { Form, Item } from '../form/definition'
import { RUNS, TODAY } from '../../tests/support/states'
import type { Plan } from '../fill/planned'
import type { Place } from '../form/walk'

const CODES = ['a', 'b', 'c']
const leaf = fc.constantFrom(
  'p = "a"',
  'p != null',
  'h in ["h0", "h3"]',
  'h = "h1"',
  'h.row.depth > 1',
  'h.row.depth < n',
  'n >= 2',
  'list contains(m, "b")',
)
const optional = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined })
const cascade = fc.record({
  rows: fc.array(
    fc.record({ parent: fc.constantFrom(...CODES, 'z'), depth: fc.integer({ min: 0, max: 2 }) }),
    { minLength: 4, maxLength: 5 },
  ),
  narrowedBy: fc.constantFrom(
    'row.parent = p',
    'list contains(m, row.parent)',
    'row.parent = p and row.depth >= n',
    'row.depth < n',
  ),
  required: fc.constantFrom(undefined, true as const, 'p = "b"'),
  shown: optional(leaf),
  option: optional(fc.constantFrom('n > 1', 'p = "a"')),
  check: optional(fc.constantFrom('h != "h1"', 'h.row.depth > 0', 'n != 2', 'h in ["h0", "h2"] or p = "a"')),
  notes: fc.array(
    fc.oneof(
      leaf,
      fc.tuple(leaf, leaf).map(([a, b]) => `(${a}) and (${b})`),
      leaf.map(l => `not(${l})`),
    ),
    { minLength: 1, maxLength: 3 },
  ),
  split: fc.boolean(),
})

type Cascade = typeof cascade extends fc.Arbitrary<infer T> ? T : never
const asOptions = CODES.map(c => ({ code: c, label: c }))

function formOf({ rows, narrowedBy, required, shown, option, check, notes, split }: Cascade): Form {
  const last = option && !option.startsWith('p') ? { shownWhen: option } : {}
  const first: Item[] = [
    {
      kind: 'question',
      code: 'p',
      label: 'P',
      type: 'choice',
      options: asOptions.map(o => (o.code === 'c' ? { ...o, ...last } : o)),
    },
    { kind: 'question', code: 'm', label: 'M', type: 'choices', options: asOptions },
    { kind: 'question', code: 'n', label: 'N', type: 'integer', min: 0, max: 3 },
  ]
  const rest: Item[] = [
    {
      kind: 'question',
      code: 'h',
      label: 'H',
      type: 'choice',
      list: 'hs',
      narrowedBy,
      ...(required === undefined ? {} : { required }),
      ...(check === undefined ? {} : { validWhen: [{ rule: check, message: 'Not that one.' }] }),
      ...(shown === undefined || /\bh\b/.test(shown) ? {} : { shownWhen: shown }),
    },
    ...notes.map((rule, i): Item => ({ kind: 'note', code: `note${i}`, text: 'x', shownWhen: rule })),
  ]
  const after = {
    code: 'u',
    title: 'U',
    items: notes.map((rule, i): Item => ({ kind: 'note', code: `after${i}`, text: 'x', shownWhen: rule })),
  }
  const listRows = rows.map((r, i) => ({ code: `h${i}`, label: `H${i}`, ...r }))
  const apart = [
    { code: 's', title: 'S', items: first },
    { code: 't', title: 'T', items: rest },
  ]
  return {
    tobbin: 2,
    code: 'f',
    title: 'F',
    lists: [{ code: 'hs', columns: ['parent', 'depth'], rows: listRows }],
    sections: [...(split ? apart : [{ code: 's', title: 'S', items: [...first, ...rest] }]), after],
  }
}

/** All answers to the four questions. */
function* allAnswers(rows: number): Generator<Answers> {
  const subsets = [null, ['a'], ['b'], ['c'], ['a', 'b'], ['a', 'c'], ['b', 'c'], CODES]
  const harbours = [null, ...Array.from({ length: rows }, (_, i) => `h${i}`)]
  for (const p of [null, ...CODES])
    for (const m of subsets)
      for (const n of [null, 0, 1, 2, 3]) for (const h of harbours) yield { p, m, n, h }
}

/** Whether a place is in the section that follows the cascade: whoever is there has passed its check. */
const isBehind = (plan: Plan, { section }: Place): boolean => section === plan.sections.length - 1

/** Whether the narrowed question asks for an answer while nothing is on offer: what narrows it may all be left blank. */
function isStuck(plan: Plan, state: Filled): boolean {
  const h = plan.byCode.get('h')
  if (!h || !state.inPlay[h.place.order] || !state.required[h.slot]) return false
  return offeredNow(state, h)?.size === 0
}

/** What of a cascade, and behind it, is in play in some state, and whether somebody is stuck in one. */
function tryAll(plan: Plan, { rows, split }: Cascade) {
  const seen = new Set<string>()
  let stuck = false
  for (const answers of allAnswers(rows.length)) {
    const state = fill(plan, answers, TODAY)
    const [first, ...others] = plan.sections
    if (split && first && problemsIn(state, first).length > 0) continue
    const isComplete = [...(first ? [first] : []), ...others].every(s => problemsIn(state, s).length === 0)
    for (const place of plan.places)
      if (state.inPlay[place.order] && (isComplete || !isBehind(plan, place))) seen.add(place.code)
    stuck ||= isStuck(plan, state)
  }
  return { seen, stuck }
}

describe('against brute force', () => {
  it('cascades: never shown and dead ends, the same verdict on random lists narrowed by one another', () => {
    fc.assert(
      fc.property(cascade, made => {
        const inquiry = new Inquiry(formOf(made), TODAY)
        const { plan } = inquiry.model
        const findings = [unreachableSection, neverShown, deadEnd].flatMap(c => findingsOf(c, inquiry))
        expect(findings.filter(f => f.code === 'undecided')).toEqual([])
        const { seen, stuck } = tryAll(plan, made)
        for (const code of ['h', ...made.notes.flatMap((_, i) => [`note${i}`, `after${i}`])]) {
          const place = plan.places.find(p => p.code === code)
          if (place) expect([code, isOutOfPlay(inquiry, { place })]).toEqual([code, !seen.has(code)])
        }
        expect(findings.some(f => f.code === 'dead-end')).toBe(stuck)
      }),
      { numRuns: Math.ceil(RUNS / 3) },
    )
  })
})
