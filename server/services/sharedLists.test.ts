import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { ChoiceList } from '../../core/form/choiceLists'
import type { Form } from '../../core/form/definition'
import { applyEdits } from '../../core/form/edits'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedReleases,
  type TestStore,
} from '../testing/testStore'
import type { Database } from '../store/database'
import { sharedLists } from '../store/schema'
import { isoToday } from './calendar'
import { createForm, loadFormRow } from './drafts'
import { findOfferedRows } from './rowSearch'
import { followEdits, listSharedLists, loadSharedList, saveSharedList } from './sharedLists'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const rows = (...codes: string[]): ChoiceList['rows'] =>
  codes.map(code => ({ code, label: code.toUpperCase() }))
const codesOf = (list: ChoiceList | undefined) => list?.rows.map(r => r.code)
/** A form with a list of its own name that follows one of the workspace. */
const following = (shared: string, own: string): Form =>
  formOf([question('harbour', { type: 'choice', list: own })], {
    lists: [{ code: own, shared, rows: rows('a', 'b') }],
  })

describe('lists of the workspace', () => {
  it('follow in the forms that use them, as an edit there; a release keeps the rows of its time', async () => {
    const code = fresh('harbours')
    const from = (await createForm(db, { definition: following(code, code) }, store.designer.id)).id
    const save = (base: number, list: ChoiceList) =>
      saveSharedList(db, store.designer, code, { base, from, list })
    expect((await save(0, { code, rows: rows('a', 'b') })).changed).toEqual([])
    const { id } = await releaseNew(store, following(code, 'own_name'))
    const saved = await save(1, { code, rows: rows('a', 'c') })
    expect(saved).toMatchObject({ revision: 2, changed: ['Boat'] })
    const { draft, revision } = await loadFormRow(db, id)
    expect([draft.lists?.[0]?.code, codesOf(draft.lists?.[0]), revision]).toEqual(['own_name', ['a', 'c'], 1])
    const [released] = await storedReleases(db, id)
    expect(codesOf(released?.definition.lists?.[0])).toEqual(['a', 'b'])
    const brief = (await listSharedLists(db, store.designer.id)).find(l => l.code === code)
    expect(brief?.usedBy.find(u => u.id === id)).toEqual({ id, title: 'Boat', releases: [1] })
    expect(codesOf((await loadSharedList(db, code)).list)).toEqual(['a', 'c'])
  })

  it('are saved by one at a time; what is not there is said', async () => {
    const code = fresh('harbours')
    const from = (await createForm(db, { definition: following(code, code) }, store.designer.id)).id
    const save = (base: number, codes: string[]) =>
      saveSharedList(db, store.designer, code, { base, from, list: { code, rows: rows(...codes) } })
    await save(0, ['a'])
    await save(1, ['b'])
    for (const base of [0, 1]) {
      const refused = await refusalOf(save(base, ['z']))
      expect(refused).toMatchObject({ status: 409, code: 'outdated' })
    }
    expect((await refusalOf(loadSharedList(db, 'nothing'))).status).toBe(404)
  })

  it('are followed anew after an undo: the rows end as the workspace’s', async () => {
    const code = fresh('harbours')
    const form = following(code, 'own_name')
    const from = (await createForm(db, { definition: form }, store.designer.id)).id
    const list = { code, rows: rows('a', 'c') }
    await saveSharedList(db, store.designer, code, { base: 0, from, list })
    const [row] = await db.select().from(sharedLists).where(eq(sharedLists.code, code))
    const followed = applyEdits(form, followEdits(form.lists![0]!, row!.list)).form
    expect(followed.lists?.[0]?.rows).toEqual(list.rows)
  })
})

describe('lists of the workspace', () => {
  it('are searched where they are kept, narrowed by what was answered', async () => {
    const berths = Array.from({ length: 300 }, (_, i) => ({
      code: `b${i}`,
      label: `Berth ${i}`,
      coast: i % 2 === 0 ? 'north' : 'south',
    }))
    const coast = question('coast', { type: 'choice', options: rows('north', 'south') })
    const berth = question('berth', { type: 'choice', list: 'berths', narrowedBy: 'row.coast = coast' })
    const lists = [{ code: 'berths', columns: ['coast'], rows: berths }]
    const { token } = await releaseNew(store, formOf([coast, berth], { lists }))
    const find = (typed: string, answers: Answers, path = 'berth') =>
      findOfferedRows(db, byLink(token), { path, typed, begunOn: isoToday(), answers })
    const southern = [11, 111, 113, 115, 117, 119, 211].map(n => ({ code: `b${n}` }))
    expect(await find('Berth 11', { coast: 'south' })).toMatchObject({ count: 7, rows: southern })
    expect((await find('', {})).count).toBe(0)
    expect((await refusalOf(find('', {}, 'nothing'))).code).toBe('no-choice')
    expect((await refusalOf(find('', {}, 'none[3].berth'))).code).toBe('no-choice')
  })
})
