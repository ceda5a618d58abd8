import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Audience } from '../../core/form/audience'
import { Opening } from '../../core/form/opening'
import type { Form } from '../../core/form/definition'
import { findProof } from '../../core/form/proofOfWork'
import type { Database } from '../store/database'
import { messages, responses, users } from '../store/schema'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import { givePass, savePassphrase } from './admission'
import { listTables } from './backup/tables'
import { isoToday } from './calendar'
import { findEntrance } from './entrances'
import type { LinkUse } from './links'
import { findByCode, loadOpening, makeShortAddress, saveOpening } from './openings'
import { hashPassword } from './people/passwords'
import { loadRespondentPage } from './respondentPage'
import { submitAnswers } from './submitAnswers'
import { changeWay, invitePeople, listWays, makeWay, postInvitations, removeWay } from './ways'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const PLAIN = formOf([question('name')])
const HIDDEN = formOf([question('name'), question('via', { type: 'hidden' })])
const sending = (answers = {}) => ({
  ...{ release: 1, key: fresh('sending'), begunOn: isoToday(), answers: { name: 'Oda', ...answers } },
})
const send = (use: LinkUse, answers = {}) => submitAnswers(db, use, sending(answers))
const admit = (id: string, audience: object, more: object = {}) =>
  saveOpening(db, id, Opening.parse({ ...more, audience: Audience.parse(audience) }))

async function released(form: Form = PLAIN) {
  const { id, token } = await releaseNew(store, form)
  return { id, token, address: (await loadOpening(db, id)).token }
}
/** Somebody of the workspace, signed in. */
async function somebody(email: string): Promise<LinkUse['caller']> {
  const [user] = await db.select().from(users).where(eq(users.email, email))
  return user ?? null
}

describe('a link with a name', () => {
  it('answers hidden questions by itself, whatever the page says, and tells which responses came by it', async () => {
    const { id } = await released(HIDDEN)
    const way = await makeWay(db, id, { name: 'Poster', values: { via: 'poster' }, most: null })
    const page = await loadRespondentPage(db, byLink(way.token))
    expect(page).toMatchObject({ brought: { via: 'poster' }, token: `${way.token}~1` })
    await send(byLink(page.token), { via: 'forged' })
    const [response] = await storedResponses(db, id)
    expect(response?.answers).toEqual({ name: 'Oda', via: 'poster' })
    const [stored] = await db.select().from(responses).where(eq(responses.id, response!.id))
    expect(stored?.wayId).toBe(way.id)
    expect((await listWays(db, id))[0]).toMatchObject({ taken: 1 })
    expect(await refusalOf(removeWay(db, id, way.id))).toMatchObject({ code: 'in-use' })
    const wrong = makeWay(db, id, { name: 'X', values: { name: 'Oda' }, most: null })
    expect(await refusalOf(wrong)).toMatchObject({ code: 'unknown-value', paths: ['name'] })
  })

  it('takes as many as it says, however many come at once; a closed one none', async () => {
    const { id } = await released()
    const way = await makeWay(db, id, { name: 'Letter', values: {}, most: 3 })
    const sent = await Promise.allSettled(Array.from({ length: 24 }, () => send(byLink(way.token))))
    expect(sent.filter(s => s.status === 'fulfilled')).toHaveLength(3)
    expect(await storedResponses(db, id)).toHaveLength(3)
    expect(await refusalOf(loadRespondentPage(db, byLink(way.token)))).toMatchObject({ code: 'link-used' })
    await changeWay(db, id, way.id, { most: null, isClosed: true })
    expect(await refusalOf(loadRespondentPage(db, byLink(way.token)))).toMatchObject({ code: 'link-closed' })
    expect(await refusalOf(send(byLink(way.token)))).toMatchObject({ code: 'link-closed' })
  })
})

describe('personal links', () => {
  const PEOPLE = ['oda', 'piet'].map(name => ({ name, address: `${name}@wherry.example` }))

  it('are posted once, remind who has not answered, and let each answer as often as the form says', async () => {
    const { id, token } = await released()
    expect(await invitePeople(db, id, { people: [...PEOPLE, PEOPLE[0]!] })).toEqual({ added: 2, known: 0 })
    expect(await invitePeople(db, id, { people: PEOPLE })).toEqual({ added: 0, known: 2 })
    await admit(id, { who: 'invited', each: 1 })
    const post = (to: 'new' | 'unanswered', subject: string) =>
      postInvitations(db, id, { to, subject, text: 'Please.' })
    const subject = fresh('Please answer')
    expect(await Promise.all([post('new', subject), post('new', subject)])).toEqual(
      expect.arrayContaining([2, 0]),
    )
    const letters = await db.select().from(messages).where(eq(messages.subject, subject))
    const link = /\/f\/([\w-]+)/.exec(letters.find(l => l.to.startsWith('oda'))?.text ?? '')?.[1] ?? ''
    expect(await refusalOf(send(byLink(token)))).toMatchObject({ code: 'not-invited' })
    await send(byLink(link))
    expect(await refusalOf(send(byLink(link)))).toMatchObject({ code: 'answered' })
    expect(await post('unanswered', subject)).toBe(1)
    expect(await post('unanswered', subject)).toBe(0)
    const ways = await listWays(db, id)
    expect(ways.map(w => [w.name, w.taken])).toEqual([
      ['oda', 1],
      ['piet', 0],
    ])
  })
})

describe('an audience', () => {
  it('is who is signed in, listed, or in a team; each is counted, also when they send at once', async () => {
    const { id, token } = await released()
    const lift = await somebody('lift@wherry.example')
    const office = await somebody('office@wherry.example')
    const as = (caller: LinkUse['caller']) => ({ token, caller })
    await admit(id, { who: 'signedIn', each: 2 })
    expect(await refusalOf(send(byLink(token)))).toMatchObject({ status: 401, code: 'sign-in' })
    const sent = await Promise.allSettled(Array.from({ length: 6 }, () => send(as(lift))))
    expect(sent.filter(s => s.status === 'fulfilled')).toHaveLength(2)
    expect(await refusalOf(loadRespondentPage(db, as(lift)))).toMatchObject({ code: 'answered' })
    await admit(id, { who: 'listed', listed: ['office@wherry.example'] })
    expect(await refusalOf(send(as(lift)))).toMatchObject({ code: 'not-invited' })
    await send(as(office))
    await admit(id, { who: 'team', team: 'Nobody’s team' })
    expect(await refusalOf(send(as(office)))).toMatchObject({ code: 'not-invited' })
  })

  it('knows the passphrase, until there is another one', async () => {
    const { id, token } = await released()
    await savePassphrase(db, id, await hashPassword('keel bolts'))
    expect(await refusalOf(loadRespondentPage(db, byLink(token)))).toMatchObject({ code: 'passphrase' })
    const hashOf = async () => (await findEntrance(db, token))?.passphraseHash ?? null
    expect(await refusalOf(givePass(await hashOf(), 'keel bolt'))).toMatchObject({ code: 'wrong-passphrase' })
    const use = { ...byLink(token), passes: [await givePass(await hashOf(), 'keel bolts')] }
    await send(use)
    await savePassphrase(db, id, await hashPassword('mast step'))
    expect(await refusalOf(send(use))).toMatchObject({ status: 401, code: 'passphrase' })
  })
})

describe('a form', () => {
  it('that is anonymous keeps nothing of whoever answers with what they answered', async () => {
    const { id } = await released()
    const caller = await somebody('surveyor@wherry.example')
    await admit(id, { who: 'signedIn', isAnonymous: true, perHour: 5 })
    const way = await makeWay(db, id, { name: 'Poster', values: {}, most: null })
    const before = await dump()
    await submitAnswers(db, { token: way.token, caller, source: 'masked-source' }, sending())
    await submitAnswers(
      db,
      { token: (await loadOpening(db, id)).token, caller, source: 'masked-source' },
      sending(),
    )
    const fresh = (await dump()).filter(row => !before.includes(row))
    const kept = fresh.filter(row => row.startsWith('responses ')).join('\n')
    expect(fresh.filter(row => row.startsWith('responses '))).toHaveLength(2)
    for (const trace of [caller!.id, caller!.email, caller!.name, way.id, way.token, 'masked-source'])
      expect(kept).not.toContain(trace)
    // Beside the responses: how many came by the link, how many there are, and how many one masked source has sent.
    const tables = new Set(fresh.map(row => row.split(' ')[0]))
    expect([...tables].sort()).toEqual(['response_counts', 'responses', 'tallies', 'ways'])
    expect(fresh.filter(row => !row.startsWith('ways ')).join('\n')).not.toMatch(caller!.email)
    const people = invitePeople(db, id, { people: [{ name: 'Oda', address: 'oda@wherry.example' }] })
    expect(await refusalOf(people)).toMatchObject({ code: 'anonymous' })
    const { id: other } = await released(HIDDEN)
    expect(await refusalOf(admit(other, { isAnonymous: true }))).toMatchObject({ code: 'not-anonymous' })
  })

  it('is kept from sending in masses, and from sending without a proof', async () => {
    const { id, token } = await released()
    await admit(id, { perHour: 2 })
    const from = (source: string) => ({ ...byLink(token), source })
    await send(from('a'))
    const twice = sending()
    await submitAnswers(db, from('a'), twice)
    // What was taken is answered again; it is no further one.
    await submitAnswers(db, from('a'), twice)
    expect(await refusalOf(send(from('a')))).toMatchObject({ status: 429 })
    await send(from('b'))
    await admit(id, { isGuarded: true })
    expect(await refusalOf(send(from('c')))).toMatchObject({ code: 'no-proof' })
    const proven = sending()
    await submitAnswers(db, from('c'), { ...proven, proof: await findProof(proven.key) })
  })
})

it('a short address leads to the form, and stays', async () => {
  const { id, address } = await released()
  const code = await makeShortAddress(db, id)
  expect(await makeShortAddress(db, id)).toBe(code)
  expect(await findByCode(db, ` ${code.toUpperCase()} `)).toBe(address)
  expect(await findByCode(db, 'nobody')).toBeNull()
})

/** Every row of every table, as text. */
async function dump(): Promise<string[]> {
  const rows: string[] = []
  for (const table of await listTables(db)) {
    const name = sql.identifier(table)
    const found = await db.select({ row: sql<string>`to_jsonb(t)::text` }).from(sql`${name} as t`)
    rows.push(...found.map(({ row }) => `${table} ${row}`))
  }
  return rows
}
