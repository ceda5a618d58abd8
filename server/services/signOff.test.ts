import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { Opening } from '../../core/form/opening'
import { prove } from '../../core/prove/prove'
import type { Database } from '../store/database'
import { releases, users } from '../store/schema'
import {
  formOf,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedReleases,
  type TestStore,
} from '../testing/testStore'
import { saveEdits } from './drafts'
import { saveOpening } from './openings'
import { askApproval, checkProof, listReleases, releaseForm } from './releases'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const FORM = formOf([question('name')])
const retitle = (id: string, revision: number) =>
  saveEdits(db, id, store.designer.id, revision, [
    { do: 'change', what: 'section/s', set: { title: `S${revision}` } },
  ])

it('a form that asks for it is released by a second person, with the note, as it stood when it was asked for', async () => {
  const { id } = await releaseNew(store, FORM)
  const [other] = await db.select().from(users).where(eq(users.email, 'tobias@wherry.example'))
  await saveOpening(db, id, Opening.parse({ needsApproval: true }))
  await retitle(id, 0)
  const byOwner = () => releaseForm(db, id, store.designer, { revision: 1 })
  const byOther = (revision: number) => releaseForm(db, id, other!, { revision })
  expect(await refusalOf(byOther(1))).toMatchObject({ code: 'needs-approval' })
  await askApproval(db, id, store.designer, { revision: 1, note: 'For the spring.' })
  expect(await refusalOf(byOwner())).toMatchObject({ code: 'own-approval' })
  await retitle(id, 1)
  expect(await refusalOf(byOther(2))).toMatchObject({ code: 'needs-approval' })
  const old = askApproval(db, id, store.designer, { revision: 1, note: '' })
  expect(await refusalOf(old)).toMatchObject({ code: 'outdated' })
  await askApproval(db, id, store.designer, { revision: 2, note: 'For the spring.' })
  await byOther(2)
  const [released] = await listReleases(db, id)
  expect(released).toMatchObject({
    ...{ number: 2, note: 'For the spring.', releasedBy: other!.name, askedBy: store.designer.name },
  })
  await retitle(id, 2)
  expect(await refusalOf(byOther(3))).toMatchObject({ code: 'needs-approval' })
})

it('the proof of a version can be made again, and tells where it is another one', async () => {
  const { id } = await releaseNew(
    store,
    formOf([question('name'), question('boat', { shownWhen: 'name = "Oda"' })]),
  )
  const proof = await checkProof(db, id, 1)
  expect(proof).toMatchObject({ fresh: [], gone: [] })
  const [release] = await storedReleases(db, id)
  expect(release?.tally).toEqual(proof.tally)
  expect(proof.tally.rules).toBe(1)
  // A proof that says what this form does not have.
  const [kept] = prove(formOf([question('name', { shownWhen: '1 = 2' })]), '2026-11-29').findings
  await db
    .update(releases)
    .set({ findings: [kept!] })
    .where(eq(releases.id, release!.id))
  expect((await checkProof(db, id, 1)).gone).toEqual([kept!.sentence])
})
