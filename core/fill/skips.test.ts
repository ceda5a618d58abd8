import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANSWERS, askedOf, smallForm } from '../../tests/support/forms'
import { compile } from '../expressions/compile'
import type { Answer, Answers } from '../form/answers'
import type { Form, Item } from '../form/definition'
import { applyEdits } from '../form/edits'
import { renameEdits } from '../form/rename'
import { listPlaces, type Place } from '../form/walk'
import { allProblems, fill, type Filled } from './fill'
import { pagesOf } from './pages'
import { planOf } from './plan'

const TODAY = '2026-11-24'
const filledForm = smallForm.chain(form =>
  fc.tuple(
    fc.constant(form),
    fc
      .tuple(...askedOf(form).map(a => fc.option(fc.constantFrom(null, ...ANSWERS[a.kind]))))
      .map((values): Answers =>
        Object.fromEntries(askedOf(form).map((a, i): [string, Answer] => [a.code, values[i] ?? null])),
      ),
  ),
)

/** Where the first skip of a question that is true leads, as a position among all places; null where none is. By the definition. */
function ledTo(state: Filled, place: Place, places: readonly Place[]): number | null {
  const skips = 'skips' in place.node ? (place.node.skips ?? []) : []
  const { plan } = state
  const taken = skips.find(({ when }) => {
    const expr = when === undefined ? null : plan.names.read(when, place).expr
    return when === undefined || (expr !== null && compile(expr, plan.environment)(state.values) === true)
  })
  if (!taken) return null
  return taken.to === 'finish' ? places.length : places.findIndex(p => p.address === taken.to)
}

const asks = (code: string, more: object = {}): Item =>
  ({ kind: 'question', code, type: 'yesNo', label: code, ...more }) as Item
const form = (items: Item[], ...later: Item[][]): Form => ({
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [items, ...later].map((inside, i) => ({ code: `s${i}`, title: `S${i}`, items: inside })),
})

describe('what skips pass over', () => {
  it('what lies between a question and where it goes on is out of play; without skips that are true nothing is', () => {
    fc.assert(
      fc.property(filledForm, ([made, answers]) => {
        const state = fill(planOf(made), answers, TODAY)
        const places = listPlaces(made)
        let isSkipping = false
        for (const place of places) {
          const to = state.inPlay[place.order] ? ledTo(state, place, places) : null
          if (to === null) continue
          isSkipping = true
          for (const passed of places.slice(place.order + 1, to)) {
            const holdsTarget = places[to]?.groups.includes(passed as never) === true
            const isAround = passed.kind === 'section' && passed.section === places[to]?.section
            if (!holdsTarget && !isAround)
              expect([passed.address, state.inPlay[passed.order]]).toEqual([passed.address, false])
          }
        }
        if (isSkipping) return
        const bare = JSON.parse(
          JSON.stringify(made, (key, v: unknown) => (key === 'skips' ? undefined : v)),
        ) as Form
        expect(fill(planOf(bare), answers, TODAY).inPlay).toEqual(state.inPlay)
      }),
      { numRuns: 1000 },
    )
  })
})

describe('skips', () => {
  it('go on inside a section, at a later one, in the midst of a later one, and at the finish', () => {
    const made = form(
      [
        asks('a', {
          skips: [
            { when: 'a = true', to: 'item/c' },
            { when: 'a = false', to: 'section/s1' },
          ],
        }),
        asks('b', { required: true }),
        {
          kind: 'group',
          code: 'g',
          title: 'G',
          items: [asks('d'), asks('c', { skips: [{ when: 'c = true', to: 'item/f' }] })],
        },
        asks('last', { skips: [{ when: 'last = true', to: 'finish' }] }),
      ],
      [asks('e', { required: true }), asks('f')],
    )
    const plan = planOf(made)
    const shown = (answers: Answers) => {
      const state = fill(plan, answers, TODAY)
      return plan.questions
        .filter(q => state.inPlay[q.place.order])
        .map(q => q.place.code)
        .join('')
    }
    expect([
      shown({}),
      shown({ a: true }),
      shown({ a: false }),
      shown({ a: true, c: true }),
      shown({ last: true }),
    ]).toEqual(['abdclastef', 'aclastef', 'aef', 'acf', 'abdclast'])
    expect(allProblems(fill(plan, { a: true, c: true }, TODAY))).toEqual([])
    expect(pagesOf(fill(planOf({ ...made, pace: 'question' }), { a: true, c: true }, TODAY)).length).toBe(3)
  })
})

describe('skips', () => {
  it('in an entry of a repeating group go on in the same entry', () => {
    const inside = [
      asks('x', { skips: [{ when: 'x = true', to: 'item/z' }] }),
      asks('y', { required: true }),
      asks('z'),
    ]
    const made = form([
      { kind: 'group', code: 'g', title: 'G', repeat: { max: 3 }, items: inside },
      asks('after'),
    ])
    const state = fill(planOf(made), { g: [{ x: true }, { x: false }] }, TODAY)
    expect(allProblems(state).map(p => p.path)).toEqual(['g[1].y'])
  })

  it('follow what they lead to when it gets another code', () => {
    const made = form(
      [asks('a', { skips: [{ to: 'item/c' }, { to: 'section/s1' }] }), asks('b'), asks('c')],
      [asks('d')],
    )
    const renamed = applyEdits(made, renameEdits(made, 'item/c', 'keel')).form
    const both = applyEdits(renamed, renameEdits(renamed, 'section/s1', 'end')).form
    expect(both.sections[0]?.items[0]).toMatchObject({ skips: [{ to: 'item/keel' }, { to: 'section/end' }] })
  })
})
