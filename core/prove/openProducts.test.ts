import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Form } from '../form/definition'
import { TODAY } from '../../tests/support/states'
import { prove } from './prove'

const amount = (code: string, max: number | null) => ({
  kind: 'question' as const,
  code,
  label: code,
  type: 'integer' as const,
  required: true as const,
  min: 0,
  ...(max === null ? {} : { max }),
})
/** Things with pieces and a price, their sums, and a note behind a total. */
const order = (limits: readonly [number, number] | null, entries: number, least: number): Form => ({
  tobbin: 2,
  code: 'order',
  title: 'Order',
  sections: [
    {
      code: 's',
      title: 'Things',
      items: [
        {
          kind: 'group',
          code: 'things',
          title: 'Thing',
          repeat: { max: entries },
          items: [
            amount('pieces', limits?.[0] ?? null),
            amount('price', limits?.[1] ?? null),
            { kind: 'question', code: 'own', label: 'own', type: 'value', value: 'pieces * price' },
          ],
        },
        { kind: 'note', code: 'much', text: 'Much', shownWhen: `sum(things.own) > ${least}` },
      ],
    },
  ],
})
const saysOfNote = (form: Form) =>
  prove(form, TODAY)
    .findings.filter(f => f.at === 'much')
    .map(f => f.code)

describe('sums of products in the entries of a group', () => {
  it('are decided where nothing limits them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 900_000 }), (entries, least) => {
        expect(saysOfNote(order(null, entries, least))).toEqual([])
      }),
      { numRuns: 25 },
    )
  })

  it('are possible just when the limits allow it', () => {
    const limit = fc.integer({ min: 1, max: 30 })
    fc.assert(
      fc.property(
        limit,
        limit,
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 0, max: 2_000 }),
        (a, b, n, least) => {
          expect(saysOfNote(order([a, b], n, least))).toEqual(a * b * n > least ? [] : ['never-shown'])
        },
      ),
      { numRuns: 40 },
    )
  })
})
