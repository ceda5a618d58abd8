import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Answer, Answers } from '../../form/answers'
import type { Form, Item } from '../../form/definition'
import { proved, tried } from '../../../tests/support/tried'
import { AMOUNT, AMOUNTS_GIVEN } from '../../../tests/support/amounts'

const RUNS = Math.ceil(Number(process.env.PROVE_FORMS ?? 1500) / 10)
const cents = fc
  .tuple(fc.constantFrom('=', '!=', '<', '>='), fc.constantFrom('0', '0.01', '0.02'))
  .map(parts => parts.join(' '))
const compared = (...subjects: string[]) =>
  fc.tuple(fc.constantFrom(...subjects), cents).map(parts => parts.join(' '))
const leaf = fc.oneof(
  compared('costs[1].paid.EUR', 'costs[2].paid.GBP', 'tip.EUR', 'sum(costs.paid.EUR)'),
  fc.constantFrom(
    'some c in costs satisfies c.paid.currency = "GBP"',
    'every c in costs satisfies c.paid.EUR > 0.01',
    'costs[1].paid.EUR > tip.EUR',
    'costs[1].paid = null',
    'tip.currency = "GBP"',
    'count(costs) > 1',
  ),
)
const condition = fc.oneof(
  leaf,
  leaf.map(l => `not(${l})`),
  fc.tuple(leaf, fc.constantFrom('and', 'or'), leaf).map(([a, word, b]) => `(${a}) ${word} (${b})`),
)
const note = (code: string, shownWhen: string): Item => ({ kind: 'note', code, text: 'Note', shownWhen })
const amount = (code: string, required: true | undefined): Item => ({
  ...{ kind: 'question' as const, code, label: code, ...AMOUNT, max: 0.02 },
  ...(required === undefined ? {} : { required }),
})

/** Up to two costs, each with an amount in one of two currencies, and one amount beside them. */
const form = fc
  .record({
    required: fc.constantFrom(true as const, undefined),
    inner: compared('paid.EUR', 'paid.GBP'),
    notes: fc.array(condition, { minLength: 1, maxLength: 3 }),
    holds: condition,
  })
  .map((d): Form => ({
    ...{ tobbin: 2, code: 'f', title: 'F', promises: [{ code: 'p', text: 'P', holds: d.holds }] },
    sections: [
      {
        ...{ code: 's', title: 'S' },
        items: [
          {
            ...{ kind: 'group', code: 'costs', title: 'Costs', repeat: { min: 0, max: 2 } },
            items: [amount('paid', d.required), note('inside', d.inner)],
          },
          amount('tip', undefined),
          ...d.notes.map((shownWhen, i) => note(`n${i}`, shownWhen)),
        ],
      },
    ],
  }))

const given: Answer[] = [null, ...AMOUNTS_GIVEN.filter(({ amount }) => Number(amount) <= 0.02)]
const entries: Answer[][] = [
  [],
  ...given.map(paid => [{ paid }]),
  ...given.flatMap(a => given.map(b => [{ paid: a }, { paid: b }])),
]
const all: Answers[] = entries.flatMap(costs => given.map(tip => ({ costs, tip })))

describe('amounts in a currency that is chosen, in entries too', () => {
  it('never shown and promises: nothing is called otherwise than trying all says, and most is decided', () => {
    let decided = 0
    let count = 0
    fc.assert(
      fc.property(form, f => {
        const { inquiry, shown, broken, isOpen } = proved(f)
        const found = tried(inquiry, all)
        count += 1
        if (isOpen) {
          // What was not decided counts as possible, and as kept.
          for (const code of found.seen) expect(shown).toContain(code)
          if (broken) expect(found.broken).toBe(true)
          return
        }
        decided += 1
        expect(shown).toEqual(found.seen)
        expect(broken).toBe(found.broken)
      }),
      { numRuns: RUNS },
    )
    expect(decided / count).toBeGreaterThan(0.5)
  })
})
