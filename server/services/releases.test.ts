import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  formOf,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedReleases,
  type TestStore,
} from '../testing/testStore'
import type { Database } from '../store/database'
import { acceptRisk, listAcceptances } from './acceptances'
import { createForm, saveEdits } from './drafts'
import { listReleases, releaseForm } from './releases'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const make = async (definition: unknown) => (await createForm(db, { definition }, store.designer.id)).id
const release = (id: string, revision: number) => releaseForm(db, id, store.designer, { revision })
const risky = formOf([
  question('age', { type: 'integer', min: 18 }),
  question('guardian', { shownWhen: 'age >= 18 or age = null' }),
])

describe('releases', () => {
  it('are refused while a fault is open, and while a risk has no reason', async () => {
    const never = question('never', { shownWhen: 'age > 5 and age < 3' })
    const faulty = await make(formOf([question('age', { type: 'integer' }), never]))
    expect(await refusalOf(release(faulty, 0))).toEqual({
      status: 422,
      code: 'open-faults',
      paths: ['never'],
    })
    const id = await make(risky)
    expect(await refusalOf(release(id, 0))).toEqual({ status: 422, code: 'open-risks', paths: ['guardian'] })
    expect(await refusalOf(release(id, 7))).toMatchObject({ status: 409, code: 'outdated' })
    expect(await listReleases(db, id)).toEqual([])
  })

  it('keep the reason and the form as it was; a reason holds only as long as what it rests on', async () => {
    const { id, number } = await releaseNew(store, risky)
    const [kept] = await storedReleases(db, id)
    const reasons = kept?.accepted.map(a => [a.reason, a.by])
    expect([number, kept?.definition, reasons]).toEqual([1, risky, [['It is meant.', store.designer.name]]])
    const save = saveEdits.bind(null, db, id, store.designer.id)
    await save(0, [{ do: 'change', what: 'section/s', set: { title: 'Renamed' } }])
    expect((await release(id, 1)).number).toBe(2)
    await save(1, [{ do: 'change', what: 'item/age', set: { min: 19 } }])
    expect((await refusalOf(release(id, 2))).code).toBe('open-risks')
    const titles = (await storedReleases(db, id)).map(r => r.definition.sections[0]?.title)
    expect(titles).toEqual(['Renamed', 'S'])
    const [known] = await listAcceptances(db, id)
    const withdrawn = { key: known?.key ?? '', basis: '', reason: '' }
    expect(await acceptRisk(db, id, store.designer, withdrawn)).toEqual([])
  })
})
