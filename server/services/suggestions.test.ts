import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Edit } from '../../core/form/edits'
import { separateProposals } from '../../core/form/proposals'
import { listPlaces } from '../../core/form/walk'
import type { Outcome } from '../../shared/api/suggestions'
import { fresh, formOf, openTestStore, question, refusalOf, type TestStore } from '../testing/testStore'
import { users } from '../store/schema'
import { decideSuggestion } from './decideSuggestion'
import { createForm, listForms, loadFormRow, saveEdits } from './drafts'
import { listSuggestions, suggest } from './suggestions'

let store: TestStore
let other: { id: string }
beforeAll(async () => {
  store = await openTestStore()
  const [row] = await store.db
    .insert(users)
    .values({ name: 'Mira Osei', email: `${fresh('mira')}@wherry.example`, role: 'member' })
    .returning({ id: users.id })
  other = row!
}, 120_000)
afterAll(() => store.end())

const insert = (code: string, at: number): Edit => ({
  do: 'insert',
  into: 'section/s',
  at,
  node: question(code),
})
const make = async () => {
  const { id } = await createForm(
    store.db,
    { definition: formOf([question('q'), question('r')]) },
    store.designer.id,
  )
  return id
}
const propose = async (id: string, ...edits: Edit[]) => {
  const { draft } = await loadFormRow(store.db, id)
  const proposals = separateProposals(
    draft,
    edits.map(edit => [edit]),
  )
  await suggest(store.db, id, other.id, { about: null, note: 'Because', proposals })
}
const decide = (id: string, suggestion: string, outcome: Outcome | null, isDesigner = true) => {
  const by = { id: isDesigner ? store.designer.id : other.id, isDesigner }
  return decideSuggestion(store.db, id, suggestion, by, { outcome, reply: 'So be it' })
}
const seen = (id: string) => listSuggestions(store.db, id, other.id)
const codes = async (id: string) => listPlaces((await loadFormRow(store.db, id)).draft).map(p => p.code)

describe('suggestions', () => {
  it('are taken one by one, on top of what was saved since, and once', async () => {
    const id = await make()
    await propose(id, insert('u', 1), insert('v', 3))
    await saveEdits(store.db, id, store.designer.id, 0, [{ do: 'remove', what: 'item/q' }])
    const [first, second] = (await seen(id)).open
    expect([first?.by, first?.own, first?.note]).toEqual(['Mira Osei', true, 'Because'])
    expect((await listForms(store.db, store.designer.id)).find(f => f.id === id)?.suggestions).toBe(2)
    const both = await Promise.allSettled([decide(id, second!.id, 'taken'), decide(id, second!.id, 'taken')])
    expect(both.map(b => b.status).toSorted()).toEqual(['fulfilled', 'rejected'])
    expect(await codes(id)).toEqual(['s', 'r', 'v'])
    await decide(id, first!.id, 'declined')
    expect(await codes(id)).toEqual(['s', 'r', 'v'])
    const { open, decided } = await seen(id)
    expect(open).toEqual([])
    expect(decided.map(d => [d.outcome, d.decidedBy, d.reply])).toEqual([
      ['declined', store.designer.name, 'So be it'],
      ['taken', store.designer.name, 'So be it'],
    ])
    expect((await listForms(store.db, store.designer.id)).find(f => f.id === id)?.suggestions).toBe(0)
  })

  it('one that can’t be made any more stays open, and nothing is changed', async () => {
    const id = await make()
    await propose(id, { do: 'change', what: 'item/q', set: { label: 'Other' } })
    await saveEdits(store.db, id, store.designer.id, 0, [{ do: 'remove', what: 'item/q' }])
    const [only] = (await seen(id)).open
    expect(await refusalOf(decide(id, only!.id, 'taken'))).toMatchObject({
      status: 422,
      code: 'edit-impossible',
    })
    expect((await seen(id)).open).toHaveLength(1)
    const gone = { edits: [insert('x', 0)], above: [[]] }
    const wrong = { edits: [{ do: 'remove', what: 'item/gone' } as const], above: [[]] }
    const all = suggest(store.db, id, other.id, { about: null, note: '', proposals: [gone, wrong] })
    expect(await refusalOf(all)).toMatchObject({ status: 422 })
    expect((await seen(id)).open).toHaveLength(1)
  })
})

describe('suggestions', () => {
  it('who may not write decides about nothing but their own', async () => {
    const id = await make()
    await propose(id, insert('u', 0))
    await suggest(store.db, id, store.designer.id, { about: 'item/q', note: 'Hm', proposals: [] })
    const open = (await seen(id)).open
    const [proposal, remark] = [open.find(s => s.proposal)!, open.find(s => !s.proposal)!]
    for (const [suggestion, outcome] of [
      [proposal, 'taken'],
      [proposal, 'declined'],
      [remark, 'settled'],
      [remark, 'withdrawn'],
    ] as const)
      expect(await refusalOf(decide(id, suggestion.id, outcome, false))).toMatchObject({ status: 403 })
    expect(await refusalOf(decide(id, remark.id, 'taken'))).toMatchObject({ code: 'wrong-outcome' })
    const elsewhere = await make()
    expect(await refusalOf(decide(elsewhere, proposal.id, 'taken'))).toMatchObject({ status: 404 })
    await decide(id, proposal.id, 'withdrawn', false)
    await decide(id, remark.id, 'settled')
    expect((await seen(id)).open).toEqual([])
    await decide(id, remark.id, null)
    expect((await seen(id)).open.map(s => s.note)).toEqual(['Hm'])
  })
})
