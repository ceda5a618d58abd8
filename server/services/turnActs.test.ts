import { and, desc, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import { BoardQuery } from '../../shared/api/board'
import {
  byLink,
  formOf,
  fresh,
  linkTo,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import type { Database } from '../store/database'
import { messages, turnLinks, turns } from '../store/schema'
import { loadBoard } from './board'
import { isoToday } from './calendar'
import { keepTurn } from './keepTurn'
import { postNotices } from './notices'
import { loadRespondentPage } from './respondentPage'
import { loadResponse } from './responses'
import { returnTurn } from './returnTurn'
import { submitAnswers } from './submitAnswers'
import { actOnTurn } from './turnActs'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const DAY = 86_400_000
const inDays = (days: number) => isoToday(new Date(Date.now() + days * DAY))
const YARD = ['mia@wherry.example', 'jon@wherry.example']
const form = formOf([question('boat', { required: true }), question('berth')], {
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'ask', party: 'owner', by: 'link', access: { s: 'fills' } },
    {
      code: 'check',
      party: 'yard',
      by: { team: YARD, rotate: true },
      due: { days: 3 },
      reminders: [-1, 1],
      escalation: { after: 2, to: 'boss@wherry.example' },
      linkDays: 30,
      access: { s: 'fills' },
    },
  ],
})
const send = (token: string, answers: Answers, release = 1) =>
  submitAnswers(db, byLink(token), { release, key: fresh('sending'), begunOn: isoToday(), answers })
const board = (id: string, query: object = {}) => loadBoard(db, id, BoardQuery.parse(query))
/** A response that waits at its second turn, as the board has it. */
async function begin() {
  const { id, token } = await releaseNew(store, form)
  await send(token, { boat: 'Teasel' })
  const [row] = (await board(id)).rows
  return { id, token, turn: row!.id, response: row!.response }
}
const postedTo = async (to: string, response: string) =>
  db
    .select()
    .from(messages)
    .where(and(eq(messages.to, to), eq(messages.responseId, response)))
    .orderBy(desc(messages.at))
const linkIn = (text: string) => /\/f\/[\w-]+/.exec(text)?.[0] ?? ''
const turnRow = async (id: string) => (await db.select().from(turns).where(eq(turns.id, id)))[0]!

describe('the board', () => {
  it('tells what is at which turn, since when and with whom; found by number, address and lateness', async () => {
    const { id, token, turn } = await begin()
    await send(token, { boat: 'Wren' })
    const { rows, lanes, count } = await board(id)
    expect(lanes).toMatchObject([{ turn: 'check', name: 'Yard', count: 2, late: 0 }])
    expect(count).toBe(2)
    // One after the other has a response.
    expect(rows.map(r => r.to)).toEqual(YARD.map(address => [address]))
    expect(rows.map(r => [r.number, r.dueOn])).toEqual([
      [1, inDays(3)],
      [2, inDays(3)],
    ])
    expect((await board(id, { search: '2' })).rows.map(r => r.number)).toEqual([2])
    expect((await board(id, { search: 'MIA@' })).rows.map(r => r.number)).toEqual([1])
    expect((await board(id, { late: 'true' })).count).toBe(0)
    await db
      .update(turns)
      .set({ dueOn: inDays(-1) })
      .where(eq(turns.id, turn))
    expect((await board(id, { late: 'true' })).rows.map(r => r.number)).toEqual([1])
    expect((await board(id, { turn: 'ask' })).count).toBe(0)
  })
})

describe('a private link', () => {
  it('is kept nowhere but in the letter, ends with its time, and when it is revoked', async () => {
    const { turn, response } = await begin()
    const [letter] = await postedTo(YARD[0]!, response)
    const link = linkIn(letter!.text)
    expect(JSON.stringify(await db.select().from(turnLinks))).not.toContain(link.slice(3))
    expect((await loadRespondentPage(db, byLink(link))).answers).toEqual({ boat: 'Teasel' })
    await db
      .update(turnLinks)
      .set({ expiresAt: new Date(Date.now() - 1) })
      .where(eq(turnLinks.turnId, turn))
    expect((await refusalOf(loadRespondentPage(db, byLink(link)))).code).toBe('link-expired')
    const other = await actOnTurn(db, turn, { do: 'make link' }, store.designer)
    await actOnTurn(db, turn, { do: 'revoke links' }, store.designer)
    expect((await refusalOf(loadRespondentPage(db, byLink(other!)))).code).toBe('link-revoked')
    expect((await refusalOf(send(other!, { boat: 'Forged' }))).code).toBe('link-revoked')
    expect((await refusalOf(loadRespondentPage(db, byLink('forged')))).status).toBe(404)
  })
})

describe('in somebody’s stead', () => {
  it('a turn goes to others; what was kept in it stays, the old link ends', async () => {
    const { turn, response } = await begin()
    const [before] = await postedTo(YARD[0]!, response)
    const old = byLink(linkIn(before!.text))
    const draft = { seat: 'seat-one', base: null, key: 'key-of-one', answers: { boat: 'Wren' } }
    await keepTurn(db, old, draft)
    const to = ['orla@wherry.example']
    await actOnTurn(db, turn, { do: 'reassign', to, reason: 'Mia is ill.' }, store.designer)
    expect((await refusalOf(keepTurn(db, old, draft))).code).toBe('link-revoked')
    const [letter] = await postedTo('orla@wherry.example', response)
    const page = await loadRespondentPage(db, byLink(linkIn(letter!.text)))
    expect([page.turn?.draft?.answers, page.answers]).toEqual([{ boat: 'Wren' }, { boat: 'Wren' }])
    await actOnTurn(db, turn, { do: 'take over', reason: 'I do it myself.' }, store.designer)
    const use = { token: turn, caller: store.designer }
    const sending = { release: 1, key: fresh('sending'), begunOn: isoToday(), answers: { boat: 'Curlew' } }
    expect((await submitAnswers(db, use, sending)).next).toBeNull()
    const { history } = await loadResponse(db, response, { email: '', mayAct: false })
    const told = history.filter(h => h.kind !== 'posted').map(h => [h.kind, h.who, h.remark])
    expect(told).toEqual([
      ['sent', '', ''],
      ['reassigned', store.designer.name, 'Mia is ill.'],
      ['taken over', store.designer.name, 'I do it myself.'],
      ['sent', store.designer.name, ''],
    ])
    expect(history.at(-1)?.changes).toEqual([{ label: 'boat', before: 'Teasel', after: 'Curlew' }])
    expect((await refusalOf(actOnTurn(db, turn, { do: 'remind' }, store.designer))).code).toBe('not-open')
  })
})

describe('in somebody’s stead', () => {
  it('a turn that is opened again stays with whom it was given to', async () => {
    const { turn, response } = await begin()
    const to = ['orla@wherry.example']
    await actOnTurn(db, turn, { do: 'reassign', to, reason: 'Mia is ill.' }, store.designer)
    const [letter] = await postedTo('orla@wherry.example', response)
    const orla = byLink(linkIn(letter!.text))
    await returnTurn(db, orla, { remark: 'Which berth?', pointed: [], draft: null })
    const [first] = await db
      .select()
      .from(turns)
      .where(and(eq(turns.responseId, response), eq(turns.turn, 'ask')))
    await send(await linkTo(db, first!.id), { boat: 'Teasel, berth 4' })
    expect((await turnRow(turn)).to).toEqual(to)
    expect((await loadRespondentPage(db, orla)).answers).toEqual({ boat: 'Teasel, berth 4' })
  })

  it('a response is taken back to an earlier turn, or withdrawn: it stays to be read, nobody goes on', async () => {
    const { id, turn } = await begin()
    const late = await linkTo(db, turn)
    const back = { do: 'take back', to: 'ask', reason: 'Wrong boat.' } as const
    await actOnTurn(db, turn, back, store.designer)
    expect((await refusalOf(send(late, { boat: 'Wren' }))).code).toBe('given-back')
    expect((await refusalOf(actOnTurn(db, turn, back, store.designer))).code).toBe('not-open')
    const [row] = (await board(id)).rows
    expect(row).toMatchObject({ turn: 'ask', remark: 'Wrong boat.', isByLink: true })
    const first = await linkTo(db, row!.id)
    await actOnTurn(db, row!.id, { do: 'withdraw', reason: 'Sold.' }, store.designer)
    expect((await refusalOf(loadRespondentPage(db, byLink(late)))).code).toBe('withdrawn')
    expect((await refusalOf(send(first, { boat: 'Wren' }))).code).toBe('withdrawn')
    expect((await board(id)).count).toBe(0)
    expect(await storedResponses(db, id)).toMatchObject([{ answers: { boat: 'Teasel' }, turn: null }])
  })
})

describe('notices', () => {
  it('go out on their days, once; a late turn goes to whoever is named for that', async () => {
    const { turn, response } = await begin()
    const countTo = async (to: string) => (await postedTo(to, response)).length
    const mia = YARD[0]!
    await postNotices(db, inDays(1))
    expect(await countTo(mia)).toBe(1)
    await postNotices(db, inDays(2))
    await postNotices(db, inDays(2))
    expect(await countTo(mia)).toBe(2)
    // Of what was missed while nobody looked only the last one goes out.
    await postNotices(db, inDays(9))
    await postNotices(db, inDays(9))
    expect([await countTo(mia), await countTo('boss@wherry.example')]).toEqual([2, 1])
    expect(await turnRow(turn)).toMatchObject({ to: ['boss@wherry.example'], noticeOn: null, notices: 3 })
    const [letter] = await postedTo('boss@wherry.example', response)
    await send(linkIn(letter!.text), { boat: 'Wren' })
  })

  it('do not go out about what was handed on, given back or withdrawn', async () => {
    const { turn, response } = await begin()
    await actOnTurn(db, turn, { do: 'withdraw', reason: 'Sold.' }, store.designer)
    const before = (await postedTo(YARD[0]!, response)).length
    await postNotices(db, inDays(30))
    expect((await postedTo(YARD[0]!, response)).length).toBe(before)
  })
})
