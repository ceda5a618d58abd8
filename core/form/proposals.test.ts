import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { acts, stepsOf } from '../../tests/support/formEdits'
import { richForm } from '../../tests/support/richForms'
import type { Form, Item } from './definition'
import { describeEdits } from './describeEdits'
import { applyEdits, EditError, type Edit } from './edits'
import { placeProposal, separateProposals, withoutUndone, type Proposal } from './proposals'
import { listPlaces, nodeText } from './walk'

const q = (code: string, more: object = {}): Item =>
  ({ kind: 'question', code, label: code, type: 'text', ...more }) as Item
const FORM: Form = {
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [
    { code: 's', title: 'S', items: ['a', 'b', 'c'].map(code => q(code)) },
    { code: 't', title: 'T', items: [q('d')] },
  ],
}
const change = (what: string, set: Record<string, unknown>): Edit => ({ do: 'change', what, set })
const insert = (node: Item, at: number): Edit => ({ do: 'insert', into: 'section/s', at, node })
const after = (form: Form, edits: readonly Edit[]) => applyEdits(form, edits).form
const take = (form: Form, proposal: Proposal) => after(form, placeProposal(form, proposal))
const codes = (form: Form) => listPlaces(form).map(p => p.code)
const labelled = (edits: readonly Edit[]) => edits.map(e => e.do)

describe('proposals', () => {
  it('each can be made of the form alone, and all together make what was written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), acts, (seed, numbers) => {
        const form = richForm(seed)
        const steps = stepsOf(form, numbers)
        const written = after(form, steps.flat())
        const proposals = separateProposals(form, steps)
        for (const proposal of proposals) expect(take(form, proposal).tobbin).toBe(2)
        const together = proposals.reduce(take, form)
        expect(codes(together).toSorted()).toEqual(codes(written).toSorted())
        const sorted = (f: Form) =>
          listPlaces(f)
            .map(p => JSON.stringify(nodeText(p.node)))
            .toSorted()
        expect(sorted(together)).toEqual(sorted(written))
      }),
      { numRuns: 100 },
    )
  })
})

describe('proposals', () => {
  it('what one needs of another stays with it; what stands on its own does not', () => {
    const steps = [
      [insert(q('e', { label: 'Your a' }), 1)],
      [change('item/a', { label: 'The e' })],
      [change('item/b', { shownWhen: 'e = "x"' })],
      [change('item/c', { label: 'C {{ d }}' })],
      [change('item/e', { label: 'Yours' })],
      [insert(q('g'), 2)],
    ]
    const proposals = separateProposals(FORM, steps)
    expect(proposals.map(p => labelled(p.edits))).toEqual([
      ['insert', 'change', 'change'],
      ['change'],
      ['change'],
      ['insert'],
    ])
    // The last stands below what the first puts in; without it below what stands there.
    expect(codes(take(FORM, proposals[3]!))).toEqual(['s', 'a', 'g', 'b', 'c', 't', 'd'])
    expect(codes(proposals.reduce(take, FORM))).toEqual(codes(after(FORM, steps.flat())))
  })

  it('taking a question out belongs to taking it out of a rule', () => {
    const form = after(FORM, [change('item/b', { shownWhen: 'a = "x"' })])
    const steps = [[change('item/b', { shownWhen: null })], [{ do: 'remove', what: 'item/a' } as const]]
    expect(separateProposals(form, steps)).toHaveLength(1)
  })

  it('a place is found again in a form that has changed since', () => {
    const [proposal] = separateProposals(FORM, [[insert(q('e'), 2)]])
    const moved = after(FORM, [{ do: 'move', what: 'item/b', into: 'section/s', at: 0 }])
    expect(codes(take(moved, proposal!))).toEqual(['s', 'b', 'e', 'a', 'c', 't', 'd'])
    const gone = after(FORM, [
      { do: 'remove', what: 'item/b' },
      { do: 'remove', what: 'item/c' },
    ])
    expect(codes(take(gone, proposal!))).toEqual(['s', 'a', 'e', 't', 'd'])
    expect(() => take(after(FORM, [{ do: 'remove', what: 'section/s' }]), proposal!)).toThrow(EditError)
  })
})

describe('proposals', () => {
  it('what was taken back is not proposed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), acts, fc.nat(8), (seed, numbers, kept) => {
        const form = richForm(seed)
        const steps = stepsOf(form, numbers)
        const before = steps.slice(0, kept)
        const back = applyEdits(after(form, before.flat()), steps.slice(kept).flat()).inverses
        const left = withoutUndone(form, [...steps, back])
        expect(left.length).toBeLessThanOrEqual(before.length)
        expect(after(form, left.flat())).toEqual(after(form, before.flat()))
      }),
      { numRuns: 40 },
    )
  })
})

it('changes of two things that are called alike are told apart', () => {
  const note = (code: string): Item => ({ kind: 'note', code, text: 'Mind the step' })
  const form = after(FORM, [insert(note('n'), 0), insert(note('m'), 1)])
  const tone = (what: string) => change(what, { tone: 'warning' })
  const lines = describeEdits(form, [tone('item/n'), change('item/n', { code: 'o' }), tone('item/m')])
  expect(lines.map(line => [line.address, line.parts.map(part => part.key)])).toEqual([
    ['item/n', ['tone', 'code']],
    ['item/m', ['tone']],
  ])
})
