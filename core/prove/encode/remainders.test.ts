import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Form } from '../../form/definition'
import type { Question } from '../../form/questions'
import { prove } from '../prove'
import { TODAY } from '../../../tests/support/states'

const formWith = (question: Question, condition: string): Form => ({
  tobbin: 2,
  code: 'remainders',
  title: 'Remainders',
  sections: [
    {
      code: 'one',
      title: 'One',
      items: [question, { kind: 'note', code: 'seen', text: 'Seen', shownWhen: condition }],
    },
  ],
})

/** Whether the note can be seen, as far as that is decided; one of two tests may well be needless. */
const saysOfNote = (form: Form) =>
  prove(form, TODAY)
    .findings.filter(f => f.at === 'seen' && f.code !== 'redundant-part')
    .map(f => f.code)

describe('several remainders of one number without limits', () => {
  const moved = fc.integer({ min: -9, max: 9 })

  it('are decided together, whatever is added to it first', () => {
    const divisor = fc.integer({ min: 2, max: 9 })
    const place = fc.nat({ max: 8 })
    fc.assert(
      fc.property(divisor, moved, moved, place, place, (k, a, b, r, s) => {
        const condition = `modulo(n + ${a}, ${k}) = ${r} and modulo(n + ${b}, ${k}) = ${s}`
        const isPossible = r < k && s < k && (r - a - (s - b)) % k === 0
        const number: Question = { kind: 'question', code: 'n', label: 'n', type: 'integer' }
        expect(saysOfNote(formWith(number, condition))).toEqual(isPossible ? [] : ['never-shown'])
      }),
      { numRuns: 60 },
    )
  })

  it('are decided for days of the week, of a date and of days beside it', () => {
    const weekday = fc.integer({ min: 1, max: 7 })
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), weekday, weekday, (days, first, second) => {
        const condition = `d.weekday = ${first} and (d + duration("P${days}D")).weekday = ${second}`
        const date: Question = { kind: 'question', code: 'd', label: 'd', type: 'date' }
        const isPossible = (first + days - second) % 7 === 0
        expect(saysOfNote(formWith(date, condition))).toEqual(isPossible ? [] : ['never-shown'])
      }),
      { numRuns: 40 },
    )
  })

  it('are decided where limits cross, so that there is no number at all', () => {
    const crossed: Question = {
      kind: 'question',
      code: 'd',
      label: 'd',
      type: 'date',
      min: '2026-05-03',
      max: '2026-05-01',
    }
    expect(saysOfNote(formWith(crossed, 'd.weekday = 6 or d.weekday = 1'))).toEqual(['never-shown'])
  })
})
