import { expect, test } from 'vitest'
import type { Form } from '../form/definition'
import { describeFilled } from './describeResponse'
import { allProblems, answersInPlay, fill } from './fill'
import { planOf } from './plan'

const FORM: Form = {
  tobbin: 2,
  code: 'ferry',
  title: 'Ferry',
  sections: [
    {
      code: 'one',
      title: 'One',
      items: [
        {
          kind: 'question',
          type: 'scale',
          code: 'seat',
          label: 'Seat',
          min: 1,
          max: 5,
          required: true,
          notApplicable: 'I stood',
        },
        {
          kind: 'question',
          type: 'ranking',
          code: 'wishes',
          label: 'Wishes',
          options: ['tea', 'rope', 'bell'].map(code => ({ code, label: code })),
        },
        { kind: 'question', type: 'value', code: 'twice', label: 'Twice', value: 'seat * 2' },
      ],
    },
  ],
}
const filledWith = (answers: Parameters<typeof fill>[1]) => fill(planOf(FORM), answers, '2026-11-29')

test('what does not apply is answered, is no number, and is kept; what is unfinished is not answered', () => {
  const left = filledWith({ seat: { doesNotApply: true } })
  expect(allProblems(left)).toEqual([])
  expect(answersInPlay(left)).toEqual({ seat: { doesNotApply: true } })
  expect(describeFilled(left).map(l => [l.code, l.state, l.text])).toEqual([
    ['seat', 'answered', 'I stood'],
    ['wishes', 'blank', ''],
    ['twice', 'blank', ''],
  ])
  const unfinished = filledWith({ seat: 3, wishes: ['tea'] })
  expect(describeFilled(unfinished).map(l => [l.code, l.state])).toEqual([
    ['seat', 'answered'],
    ['wishes', 'blank'],
    ['twice', 'answered'],
  ])
  expect(allProblems(filledWith({})).map(p => p.path)).toEqual(['seat'])
})
