import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANSWERS, askedOf, smallForm } from '../../tests/support/forms'
import type { Answer, Answers } from '../form/answers'
import { allProblems, answersInPlay, fill, problemOf } from './fill'
import { planOf } from './plan'
import { describeResponse } from './describeResponse'
import type { Form, Item } from '../form/definition'

const TODAY = '2026-11-24'
const form = (...items: Item[]): Form => ({
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [{ code: 's', title: 'S', items }],
})
const answersFor = (f: Form) =>
  fc
    .tuple(...askedOf(f).map(a => fc.option(fc.constantFrom(null, ...ANSWERS[a.kind]))))
    .map((values): Answers =>
      Object.fromEntries(askedOf(f).map((a, i): [string, Answer] => [a.code, values[i] ?? null])),
    )
const filledForm = smallForm.chain(f => fc.tuple(fc.constant(f), answersFor(f)))

describe('fill', () => {
  it('what is left after dropping what is not in play means the same', () => {
    fc.assert(
      fc.property(filledForm, ([f, answers]) => {
        const plan = planOf(f)
        const filled = fill(plan, answers, TODAY)
        const again = fill(plan, answersInPlay(filled), TODAY)
        expect(again.values).toEqual(filled.values)
        expect(again.inPlay).toEqual(filled.inPlay)
        expect(again.path).toEqual(filled.path)
      }),
      { numRuns: 500 },
    )
  })

  it('not in play is blank, and nothing is required there', () => {
    fc.assert(
      fc.property(filledForm, ([f, answers]) => {
        const filled = fill(planOf(f), answers, TODAY)
        for (const q of filled.plan.questions) {
          if (filled.inPlay[q.place.order]) continue
          expect(filled.values[q.slot]).toBeNull()
          expect(filled.required[q.slot]).toBe(false)
          expect(problemOf(filled, q)).toBeNull()
        }
      }),
      { numRuns: 500 },
    )
  })

  it('order does not matter: answering one by one ends where giving all at once does', () => {
    fc.assert(
      fc.property(
        filledForm.chain(([f, a]) =>
          fc.tuple(
            fc.constant(f),
            fc.constant(a),
            fc.shuffledSubarray(Object.keys(a), { minLength: Object.keys(a).length }),
          ),
        ),
        ([f, answers, order]) => {
          const plan = planOf(f)
          let kept: Answers = {}
          for (const code of order) {
            kept = { ...kept, [code]: answers[code] ?? null }
            fill(plan, kept, TODAY)
          }
          expect(fill(plan, kept, TODAY).values).toEqual(fill(plan, answers, TODAY).values)
        },
      ),
      { numRuns: 200 },
    )
  })
})

describe('fill', () => {
  it('an answer of the wrong type or beyond its limits is no answer, and says why', () => {
    const plan = planOf(
      form(
        { kind: 'question', code: 'n', type: 'integer', label: 'N', min: 1, max: 5 },
        { kind: 'question', code: 'd', type: 'decimal', label: 'D', decimals: 1 },
        { kind: 'question', code: 'c', type: 'choice', label: 'C', options: [{ code: 'a', label: 'A' }] },
        { kind: 'question', code: 'w', type: 'date', label: 'W', max: '2026-12-31' },
        { kind: 'question', code: 't', type: 'text', label: 'T', maxLength: 3 },
        { kind: 'question', code: 'y', type: 'yesNo', label: 'Y' },
      ),
    )
    const bad: Record<string, Answer[]> = {
      n: [0, 6, 1.5, 'x', true],
      d: [1.25, 'x', '1e5'],
      c: ['b', 1, true],
      w: ['2027-01-01', '2026-02-30', 3],
      t: ['four', 4, false],
      y: ['yes', 1],
    }
    for (const [code, answers] of Object.entries(bad)) {
      for (const answer of answers) {
        const filled = fill(plan, { [code]: answer }, TODAY)
        expect([code, answer, allProblems(filled).map(p => p.kind), answersInPlay(filled)]).toEqual([
          code,
          answer,
          ['wrong'],
          {},
        ])
      }
    }
    expect(
      answersInPlay(fill(plan, { n: 5, d: '1.5', c: 'a', w: '2026-12-31', t: 'abc', y: false }, TODAY)),
    ).toEqual({ n: 5, d: 1.5, c: 'a', w: '2026-12-31', t: 'abc', y: false })
  })
})

describe('fill', () => {
  it('routes: the first that is true wins, finish ends the form, what is not reached is not in play', () => {
    const q = (code: string): Item => ({ kind: 'question', code, type: 'yesNo', label: code, required: true })
    const f: Form = {
      tobbin: 2,
      code: 'f',
      title: 'F',
      sections: [
        {
          code: 'a',
          title: 'A',
          items: [q('x'), q('y')],
          routes: [
            { when: 'x = true', to: 'finish' },
            { when: 'y = true', to: 'c' },
          ],
        },
        { code: 'b', title: 'B', items: [q('z')] },
        { code: 'c', title: 'C', items: [q('last')], shownWhen: 'z = null' },
      ],
    }
    const path = (answers: Answers) => fill(planOf(f), answers, TODAY).path
    expect([
      path({}),
      path({ x: true, y: true }),
      path({ y: true }),
      path({ z: true }),
      path({ y: true, z: true }),
    ]).toEqual([[0, 1, 2], [0], [0, 2], [0, 1], [0, 2]])
    expect(describeResponse(planOf(f), { x: true, y: false }, TODAY).map(l => l.state)).toEqual([
      'answered',
      'answered',
      'unasked',
      'unasked',
    ])
  })
})
