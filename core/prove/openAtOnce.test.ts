import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answersTo, questionsOf, smallForm } from '../../tests/support/forms'
import { TODAY } from '../../tests/support/states'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import type { Answers } from '../form/answers'
import type { Form } from '../form/definition'
import type { Turn } from '../form/turns'
import { accessViewOf, maySee } from '../parties/access'
import { nextTurn, turnProblems, turnsTaken } from '../parties/turns'
import { findingsOf } from './checks/check'
import { openAtOnce } from './checks/openAtOnce'
import { Inquiry } from './goals/inquiry'

const TURNS = ['opening', 'one', 'other'] as const
type Whose = (typeof TURNS)[number]

/** A random form, each of whose questions one of three turns fills; the last two are open at once, and read what the first one fills. */
const shared: fc.Arbitrary<{ form: Form; whose: ReadonlyMap<string, Whose> }> = smallForm.chain(form => {
  const codes = questionsOf(form).map(q => q.code)
  return fc
    .array(fc.constantFrom(...TURNS), { minLength: codes.length, maxLength: codes.length })
    .map(whose => {
      const accessOf = (turn: Whose): Turn['access'] =>
        Object.fromEntries(
          codes.flatMap((code, i): [string, 'fills' | 'reads'][] => {
            if (whose[i] === turn) return [[code, 'fills']]
            return whose[i] === 'opening' ? [[code, 'reads']] : []
          }),
        )
      const turns = TURNS.map((code): Turn => ({
        ...{ code, party: 'p', by: 'link', access: accessOf(code) },
        ...(code === 'other' ? { alongside: 'one' } : {}),
      }))
      return {
        form: { ...form, parties: [{ code: 'p', name: 'P' }], turns },
        whose: new Map(codes.map((code, i) => [code, whose[i] ?? 'opening'] as const)),
      }
    })
})

/** What a turn meets in a response: what it sees in play, and what is wrong or missing in what it fills. */
function metBy(plan: ReturnType<typeof planOf>, turn: Turn, answers: Answers) {
  const state = fill(plan, answers, TODAY)
  const view = accessViewOf(plan.form, plan.places, turn)
  return {
    seen: plan.places.filter(p => state.inPlay[p.order] && maySee(view, p)).map(p => p.code),
    wrong: turnProblems(state, turn).map(p => `${p.path} ${p.sentence}`),
  }
}

describe('turns that are open at once', () => {
  it('find the same whether the other has answered or not, where the prover lets them', () => {
    let compared = 0
    fc.assert(
      fc.property(shared, fc.infiniteStream(fc.nat()), ({ form, whose }, picks) => {
        if (findingsOf(openAtOnce, new Inquiry(form, TODAY)).length > 0) return
        const plan = planOf(form)
        const drawn = questionsOf(form).flatMap(q => {
          const given = answersTo(q)
          const pick = (picks.next().value ?? 0) % (given.length + 1)
          return pick === given.length ? [] : [[q.code, given[pick]] as const]
        })
        const answers: Answers = Object.fromEntries(drawn.map(([code, given]) => [code, given ?? null]))
        for (const [code, others] of [
          ['one', 'other'],
          ['other', 'one'],
        ] as const) {
          const turn = form.turns?.find(t => t.code === code)
          if (!turn) throw new Error('The form lost its turns.')
          const without = Object.fromEntries(Object.entries(answers).filter(([c]) => whose.get(c) !== others))
          if (Object.keys(without).length < Object.keys(answers).length) compared += 1
          expect(metBy(plan, turn, without)).toEqual(metBy(plan, turn, answers))
        }
      }),
      { numRuns: 1500 },
    )
    expect(compared).toBeGreaterThan(150)
  })
})

describe('turns that are open at once', () => {
  it('are passed one after the other, and lead on by the hand-offs of the one that leads', () => {
    const section = (code: string) => ({
      code,
      title: code,
      items: [{ kind: 'question' as const, type: 'yesNo' as const, code: `${code}_sound`, label: code }],
    })
    const turn = (code: string, more: Partial<Turn> = {}): Turn => ({
      ...{ code, party: 'p', by: 'link', access: { [code]: 'fills' } },
      ...more,
    })
    const form: Form = {
      ...{ tobbin: 2, code: 'f', title: 'F', parties: [{ code: 'p', name: 'P' }] },
      sections: ['hull', 'rig', 'engine', 'bill'].map(section),
      turns: [
        turn('hull', { handOff: [{ to: 'engine' }] }),
        turn('rig', { handOff: [{ when: 'rig_sound = true and engine_sound = true', to: 'done' }] }),
        turn('engine', { alongside: 'rig' }),
        turn('bill'),
      ],
    }
    const plan = planOf(form)
    const [, rig, engine] = form.turns ?? []
    if (!rig || !engine) throw new Error('The form lost its turns.')
    const both = fill(plan, { rig_sound: true, engine_sound: true }, TODAY)
    const one = fill(plan, { rig_sound: true }, TODAY)
    expect(nextTurn(both, rig)).toBe(engine)
    expect([nextTurn(both, engine), nextTurn(one, engine)?.code]).toEqual([null, 'bill'])
    expect([turnsTaken(both), turnsTaken(one)]).toEqual([
      ['hull', 'rig', 'engine'],
      ['hull', 'rig', 'engine', 'bill'],
    ])
  })
})
