import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Database } from '../store/database'
import { keptAnswers } from '../store/schema'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  type TestStore,
} from '../testing/testStore'
import { isoToday } from './calendar'
import { keepAnswers, recallAnswers, sweepKept } from './keptAnswers'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const FORM = formOf([question('name')])
const typed = (name: string) => ({
  ...{ release: 1, key: fresh('sending'), begunOn: isoToday(), answers: { name } },
  ...{ place: { section: 0, only: null }, rows: {} },
})

it('answers are kept when asked for, gone on with elsewhere, and never overwritten unseen', async () => {
  const { token } = await releaseNew(store, FORM)
  const use = byLink(token)
  const first = await keepAnswers(db, use, { secret: null, base: null, kept: typed('Oda') })
  const { secret } = first
  const phone = await recallAnswers(db, use, secret)
  expect(phone).toMatchObject({ kept: { answers: { name: 'Oda' } }, at: first.at })
  await keepAnswers(db, use, { secret, base: phone.at, kept: typed('Oda Fisher') })
  const late = keepAnswers(db, use, { secret, base: first.at, kept: typed('Odo') })
  expect(await refusalOf(late)).toMatchObject({ status: 409, code: 'kept-by-others' })
  expect((await recallAnswers(db, use, secret)).kept.answers).toEqual({ name: 'Oda Fisher' })
  await keepAnswers(db, use, { secret, base: null, kept: null })
  expect(await refusalOf(recallAnswers(db, use, secret))).toMatchObject({ code: 'not-kept' })
})

it('a secret opens nothing of another form, is not in the store, and is cleared after its time', async () => {
  const [one, other] = [await releaseNew(store, FORM), await releaseNew(store, FORM)]
  const kept = { secret: null, base: null, kept: typed('Oda') }
  const { secret } = await keepAnswers(db, byLink(one.token), kept)
  expect(await refusalOf(recallAnswers(db, byLink(other.token), secret))).toMatchObject({ code: 'not-kept' })
  expect(JSON.stringify(await db.select().from(keptAnswers))).not.toContain(secret)
  await db.update(keptAnswers).set({ savedAt: new Date(Date.now() - 31 * 86_400_000) })
  await sweepKept(db)
  expect(await refusalOf(recallAnswers(db, byLink(one.token), secret))).toMatchObject({ code: 'not-kept' })
})
