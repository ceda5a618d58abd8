import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { NewView } from '../../shared/api/workbench'
import { messages, views } from '../store/schema'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  releaseNew,
  type TestStore,
} from '../testing/testStore'
import { isoToday } from './calendar'
import { postDigests } from './digests'
import { submitAnswers } from './submitAnswers'
import { keepView } from './workbench'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

it('a digest tells of what is new in a view, once in a day or week whoever looks, and of nothing where nothing is', async () => {
  const { db, designer } = store
  const { id, token } = await releaseNew(store, formOf([question('tons', { type: 'integer' })]))
  const [daily, weekly] = [`${fresh('day')}@wherry.example`, `${fresh('week')}@wherry.example`]
  const keep = async (every: 'day' | 'week', address: string) => {
    const settings = { filter: { where: 'tons > 10' }, sort: '-sentAt' }
    const digest = { every, to: { addresses: [address] } }
    return keepView(db, id, designer.id, NewView.parse({ name: 'Heavy', isShared: false, settings, digest }))
  }
  const { id: view } = await keep('day', daily)
  await keep('week', weekly)
  const setUp = new Date('2026-03-03T12:00:00Z') // a Tuesday
  await db.update(views).set({ digestedAt: setUp }).where(eq(views.formId, id))
  for (const tons of [4, 12, 20]) {
    const sending = { release: 1, key: fresh('digest'), begunOn: isoToday(), answers: { tons } }
    await submitAnswers(db, byLink(token), sending)
  }
  const lettersTo = (to: string) => db.select().from(messages).where(eq(messages.to, to))
  const at = (day: string) => postDigests(db, new Date(`${day}T05:10:00Z`))
  await at('2026-03-03')
  expect(await lettersTo(daily)).toEqual([])
  await Promise.all([at('2026-03-04'), at('2026-03-04')])
  await at('2026-03-04')
  const [letter, ...others] = await lettersTo(daily)
  expect(others).toEqual([])
  expect(letter?.subject).toBe('Boat: 2 new in “Heavy”')
  expect(letter?.text).toContain('No. 2, sent')
  expect(letter?.text).not.toContain('No. 1, sent')
  expect(letter?.text).toContain(`/forms/${id}/collect?view=${view}`)
  expect(await lettersTo(weekly)).toEqual([])
  await at('2026-03-09') // a Monday
  expect(await lettersTo(weekly)).toHaveLength(1)
  // The responses came in today, after every day above.
  const later = new Date(Date.now() + 86_400_000)
  await db.update(views).set({ digestedAt: later }).where(eq(views.formId, id))
  await postDigests(db, new Date(later.getTime() + 8 * 86_400_000))
  expect([await lettersTo(daily), await lettersTo(weekly)].map(l => l.length)).toEqual([2, 1])
})
