import fc from 'fast-check'
import { expect, it } from 'vitest'
import { codeFromLabel } from './codes'
import { emptyForm, type Form } from './definition'
import type { Delivery } from './deliveries'
import type { FormDocument } from './documents'
import { applyEdits } from './edits'
import { renamePartyEdits, renameTurnEdits } from './turnCodes'

const NAMES = ['Boat owner', 'Yard office', 'Surveyor', 'Done', '', '7 seas']
const form = fc
  .array(fc.record({ party: fc.nat(1), next: fc.nat(6), isSet: fc.boolean() }), {
    minLength: 1,
    maxLength: 5,
  })
  .map((made): Form => {
    const parties = [
      { code: 'a', name: 'Boat owner' },
      { code: 'b', name: 'Yard office' },
    ]
    const codes = made.map(({ party, isSet }, i) =>
      isSet ? `set_${i}` : `${codeFromLabel(parties[party]?.name ?? '')}${i === 0 ? '' : `_${i + 1}`}`,
    )
    const turns = made.map(({ party, next }, i) => ({
      code: codes[i] ?? '',
      party: parties[party]?.code ?? '',
      by: 'link' as const,
      access: {},
      handOff: [{ to: codes[next] ?? 'done' }],
    }))
    const walks = [{ code: 'w', title: 'W', answers: {}, expect: { turns: [...codes] } }]
    const deliveries = codes.map((turn, i): Delivery => {
      const act = { do: 'tray', tray: 'New' } as const
      return { code: `d_${i}`, title: '', on: 'handedOn', turn, act }
    })
    const common = { title: '', fileName: 'x', template: { written: { body: [] } } }
    const documents: FormDocument[] = [
      { ...common, code: 'signed', on: 'signed', signedBy: codes },
      { ...common, code: 'made', on: 'handedOn', turn: codes[0] },
    ]
    return { ...emptyForm('f', 'F'), parties, turns, walks, deliveries, documents }
  })
/** Who hands on to whom, by position, whatever the turns are called; the turns of the walk, and those at which something is done or signed. */
function shapeOf({ turns = [], walks = [], deliveries = [], documents = [] }: Form) {
  const at = (code: string) => turns.findIndex(t => t.code === code)
  return [
    turns.map(t => [t.party, t.handOff?.map(h => at(h.to))]),
    walks.map(w => w.expect.turns?.map(at)),
    deliveries.map(d => at(d.turn ?? '')),
    documents.map(d => (d.signedBy ?? [d.turn ?? '']).map(at)),
  ]
}

it('turns called otherwise hand on as before, by their own code or with their party; codes that were set stay', () => {
  fc.assert(
    fc.property(
      form,
      fc.nat(4),
      fc.constantFrom('other', 'done', 'set_1'),
      fc.constantFrom(...NAMES),
      (f, n, to, name) => {
        const codesOf = (g: Form) => g.turns?.map(t => t.code) ?? []
        const from = codesOf(f)[n % codesOf(f).length] ?? ''
        const renamed = applyEdits(f, renameTurnEdits(f, from, to)).form
        const isFree = to !== 'done' && !codesOf(f).includes(to)
        expect(codesOf(renamed)).toEqual(codesOf(f).map(c => (isFree && c === from ? to : c)))
        const called = applyEdits(f, renamePartyEdits(f, 'a', name, true)).form
        expect(called.parties?.[0]?.name).toBe(name)
        expect(new Set(codesOf(called)).size).toBe(codesOf(f).length)
        for (const [i, t] of (f.turns ?? []).entries()) {
          const now = codesOf(called)[i]
          if (t.party === 'b' || t.code.startsWith('set_')) expect(now).toBe(t.code)
          else expect(now?.startsWith(codeFromLabel(name, 'turn'))).toBe(true)
        }
        for (const g of [renamed, called]) expect(shapeOf(g)).toEqual(shapeOf(f))
        expect(codesOf(applyEdits(f, renamePartyEdits(f, 'a', name, false)).form)).toEqual(codesOf(f))
      },
    ),
  )
})
