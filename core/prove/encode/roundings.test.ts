import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Form } from '../../form/definition'
import { TODAY } from '../../../tests/support/states'
import { prove } from '../prove'

const LIMIT = 2
/** What is weighed, also as it is kept rounded, and a note that is shown by a condition. */
const formWith = (condition: string, decimals: number, places: number): Form => ({
  ...{ tobbin: 2, code: 'scales', title: 'Scales' },
  sections: [
    {
      ...{ code: 'weighing', title: 'Weighing' },
      items: [
        {
          ...{ kind: 'question', type: 'decimal', code: 'kilos', label: 'Kilos', required: true },
          ...{ min: -LIMIT, max: LIMIT, decimals },
        },
        {
          ...{ kind: 'question', type: 'value', code: 'kept', label: 'Kept' },
          value: 'kilos',
          decimals: places,
        },
        { kind: 'note', code: 'seen', text: 'Seen', shownWhen: condition },
      ],
    },
  ],
})

/** A whole number of thousandths rounded to places, by its digits. */
function roundedTo(thousandths: number, places: number, isHalfUp: boolean): number {
  const unit = 10 ** (3 - places)
  const size = Math.abs(thousandths)
  const whole = size - (size % unit)
  const isUp = isHalfUp && (size % unit) * 2 >= unit
  return Math.sign(thousandths) * (whole + (isUp ? unit : 0))
}
const COMPARED = {
  '<': (a: number, b: number) => a < b,
  '=': (a: number, b: number) => a === b,
  '>': (a: number, b: number) => a > b,
}

it('what is rounded is decided exactly, halves and numbers below zero too', () => {
  const thousandths = fc.oneof(
    fc.integer({ min: -LIMIT * 1000, max: LIMIT * 1000 }),
    fc.constantFrom(-1005, -1000, -995, -500, -5, 0, 5, 45, 50, 500, 995, 1500),
  )
  const test = fc.record({
    name: fc.constantFrom('round half up', 'round down', 'kept'),
    places: fc.integer({ min: 0, max: 2 }),
    decimals: fc.integer({ min: 0, max: 3 }),
    target: thousandths,
    isNear: fc.boolean(),
    op: fc.constantFrom('<' as const, '=' as const, '>' as const),
    bound: thousandths,
  })
  fc.assert(
    fc.property(test, ({ name, places, decimals, target, isNear, op, bound }) => {
      const isHalfUp = name !== 'round down'
      const result = isNear ? roundedTo(target, places, isHalfUp) : target
      const told = name === 'kept' ? name : `${name}(kilos, ${places})`
      const condition = `${told} = ${result / 1000} and kilos ${op} ${bound / 1000}`
      const step = 10 ** (3 - decimals)
      let isPossible = false
      for (let n = -LIMIT * 1000; n <= LIMIT * 1000; n += step)
        isPossible ||= roundedTo(n, places, isHalfUp) === result && COMPARED[op](n, bound)
      const found = prove(formWith(condition, decimals, places), TODAY).findings.map(f => f.code)
      expect(found.includes('undecided')).toBe(false)
      expect(found.includes('never-shown')).toBe(!isPossible)
    }),
    { numRuns: 120 },
  )
})
