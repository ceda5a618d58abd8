import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import { InboxQuery } from '../../shared/api/inbox'
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
import { turns, users } from '../store/schema'
import { isoToday } from './calendar'
import type { LinkUse } from './links'
import { loadRespondentPage } from './respondentPage'
import { listInbox } from './inbox'
import { keepTurn } from './keepTurn'
import { shareForm } from './people/sharing'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

async function person(): Promise<{ id: string; name: string; email: string }> {
  const email = `${fresh('somebody')}@wherry.example`
  const [row] = await store.db
    .insert(users)
    .values({ name: 'Mia Tarn', email, role: 'member' })
    .returning({ id: users.id })
  return { id: row?.id ?? '', name: 'Mia Tarn', email }
}
const inboxOf = (who: { id: string; email: string }, query: Partial<InboxQuery> = {}) =>
  listInbox(store.db, { ...store.designer, ...who }, InboxQuery.parse(query))
const send = (token: string, answers: Answers) =>
  submitAnswers(store.db, byLink(token), { release: 1, key: fresh('sending'), begunOn: isoToday(), answers })

/** A form of three turns: by link, by two people, by one of them. */
async function begin() {
  const [mia, jon] = [await person(), await person()]
  const title = fresh('Dry dock')
  const access = { s: 'fills' } as const
  const form = formOf([question('boat', { required: true })], {
    title,
    parties: [
      { code: 'owner', name: 'Owner' },
      { code: 'yard', name: 'Yard' },
    ],
    turns: [
      { code: 'ask', party: 'owner', by: 'link', access },
      { code: 'check', party: 'yard', by: { team: [mia.email, jon.email] }, access },
      { code: 'sign', party: 'yard', title: 'Signing', by: { person: jon.email }, access },
    ],
  })
  const { id, token } = await releaseNew(store, form)
  for (const who of [mia, jon]) {
    const holder = { kind: 'person', id: who.id } as const
    await shareForm(store.db, id, { holder, rights: ['act'] })
  }
  return { mia, jon, title, id, token }
}

describe('the inbox', () => {
  it('holds the turns that wait for somebody, and those that they handed on', async () => {
    const { mia, jon, token } = await begin()
    await send(token, { boat: 'Teasel' })
    const [waiting] = (await inboxOf(mia)).rows
    expect(waiting).toMatchObject({ name: 'Yard', waitsFor: 'team', begunAt: null, now: 'Yard' })
    const link = { token: waiting?.id ?? '', caller: mia }
    await keepTurn(store.db, link, {
      seat: 'seat-one',
      base: null,
      key: 'key-of-one',
      answers: { boat: 'W' },
    })
    expect((await inboxOf(jon)).rows[0]?.begunAt).not.toBeNull()
    const wren = { release: 1, key: fresh('sending'), begunOn: isoToday(), answers: { boat: 'Wren' } }
    await submitAnswers(store.db, link, wren)
    expect(await inboxOf(mia)).toEqual({ count: 0, rows: [] })
    expect((await inboxOf(jon)).rows).toMatchObject([{ name: 'Signing', waitsFor: 'you' }])
    expect((await inboxOf(mia, { state: 'handedOn' })).rows).toMatchObject([{ name: 'Yard', now: 'Signing' }])
  })

  it('holds what is addressed to somebody, and for anybody only where they may act; by its id nobody else opens a turn', async () => {
    const { mia, jon, id, token } = await begin()
    await send(token, { boat: 'Teasel' })
    await shareForm(store.db, id, { holder: { kind: 'person', id: mia.id }, rights: [] })
    const [row] = (await inboxOf(mia)).rows
    const opened = (caller: LinkUse['caller']) =>
      loadRespondentPage(store.db, { token: row?.id ?? '', caller })
    expect((await opened(mia)).answers).toEqual({ boat: 'Teasel' })
    expect((await refusalOf(opened(null))).code).toBe('sign-in')
    expect((await refusalOf(opened(await person()))).code).toBe('not-found')
    await store.db
      .update(turns)
      .set({ to: [] })
      .where(eq(turns.id, row?.id ?? ''))
    expect((await inboxOf(mia)).count).toBe(0)
    expect((await refusalOf(opened(mia))).code).toBe('not-found')
    expect((await inboxOf(jon)).rows[0]?.waitsFor).toBe('anybody')
    await store.db
      .update(turns)
      .set({ to: [mia.email] })
      .where(eq(turns.id, row?.id ?? ''))
    expect((await refusalOf(opened(jon))).code).toBe('not-yours')
  })

  it('is searched by form and remark, never by answers, and paged', async () => {
    const { mia, title, token } = await begin()
    for (const boat of ['Teasel', 'Wren', 'Curlew']) await send(token, { boat })
    expect((await inboxOf(mia, { search: title.toUpperCase() })).count).toBe(3)
    expect((await inboxOf(mia, { search: 'Teasel' })).count).toBe(0)
    expect((await inboxOf(mia, { search: '%' })).count).toBe(0)
    const pages = await Promise.all([1, 2].map(page => inboxOf(mia, { page, size: 2 })))
    expect(pages.map(p => p.rows.length)).toEqual([2, 1])
    expect(new Set(pages.flatMap(p => p.rows.map(r => r.id))).size).toBe(3)
  })
})
