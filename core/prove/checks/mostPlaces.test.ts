import fc from 'fast-check'
import { expect, it } from 'vitest'
import { compile } from '../../expressions/compile'
import { decimalPlaces, isNumber } from '../../expressions/decimal'
import { fill } from '../../fill/fill'
import { planOf } from '../../fill/plan'
import { readForm } from '../../form/read'
import { standpointAtEnd } from '../../form/scope'
import { mostPlacesOf } from './mostPlaces'

const q = (type: string, code: string, more: object = {}) => ({
  ...{ kind: 'question', type, code, label: code },
  ...more,
})
/** A mill: the column of a choice is called like a question that has fewer places. */
const { form } = readForm({
  ...{ tobbin: 2, code: 'mill', title: 'Mill' },
  sections: [
    {
      ...{ code: 's', title: 'S' },
      items: [
        q('integer', 'sacks'),
        q('decimal', 'kilos', { decimals: 3 }),
        q('money', 'price', { currency: 'EUR' }),
        q('choice', 'corn', { options: [{ code: 'rye', label: 'Rye', price: 0.12345 }] }),
        q('value', 'sum', { value: 'sacks * price' }),
        q('value', 'kept', { value: 'kilos * kilos', decimals: 1 }),
        {
          kind: 'group',
          code: 'loads',
          title: 'Loads',
          repeat: { max: 2 },
          items: [q('decimal', 'tons', { decimals: 2 })],
        },
      ],
    },
  ],
})
if (!form) throw new Error('The form does not fit.')
const plan = planOf(form)
const atom = fc.constantFrom(
  'sacks',
  'kilos',
  'price',
  'corn.price',
  'sum',
  'kept',
  'sum(loads.tons)',
  '0.0625',
  '3',
)
const { expression } = fc.letrec<{ expression: string }>(tie => ({
  expression: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    atom,
    fc
      .tuple(tie('expression'), fc.constantFrom('+', '-', '*', '/'), tie('expression'))
      .map(p => `(${p.join(' ')})`),
    tie('expression').map(inner => `round half up(${inner}, 1)`),
    tie('expression').map(inner => `floor(${inner})`),
    fc.tuple(tie('expression'), tie('expression')).map(p => `max(${p.join(', ')})`),
    fc.tuple(tie('expression'), tie('expression')).map(([a, b]) => `(if sacks > 2 then ${a} else ${b})`),
  ),
}))
const answers = fc.record({
  sacks: fc.nat(9),
  kilos: fc.nat(9_999).map(n => n / 1000),
  price: fc.nat(9_999).map(n => ({ amount: (n / 100).toFixed(2), currency: 'EUR' })),
  corn: fc.constant('rye'),
  loads: fc.array(fc.record({ tons: fc.nat(999).map(n => n / 100) }), { maxLength: 2 }),
})

it('no number has more places than it is said to have at most', () => {
  fc.assert(
    fc.property(expression, answers, (source, given) => {
      const { expr } = plan.names.readQuote(source, standpointAtEnd(plan.form))
      fc.pre(expr !== null)
      const most = mostPlacesOf(plan, expr)
      const value = compile(expr, plan.environment)(fill(plan, given, '2026-11-24').values)
      if (most !== null && isNumber(value)) expect(decimalPlaces(value)).toBeLessThanOrEqual(most)
    }),
    { numRuns: 1000 },
  )
})
