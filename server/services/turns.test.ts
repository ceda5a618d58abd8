import { eq, inArray } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
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
import { files, responses, turns } from '../store/schema'
import { isoToday } from './calendar'
import { loadRespondentPage, refetchForm } from './respondentPage'
import type { Returning } from '../../shared/api/answering'
import { sweepUnclaimed } from './files'
import { keepTurn } from './keepTurn'
import { loadResponse } from './responses'
import { returnTurn } from './returnTurn'
import { submitAnswers } from './submitAnswers'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const TODAY = isoToday()
const form: Form = {
  ...formOf([question('boat', { required: true }), question('paid', { type: 'yesNo' })]),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'ask', party: 'owner', by: 'link', access: { s: 'fills' } },
    {
      code: 'check',
      party: 'yard',
      by: { person: 'yard@wherry.example' },
      access: { s: 'reads', work: 'fills' },
    },
    { code: 'thanks', party: 'owner', by: 'link', access: { s: 'reads', work: 'reads' } },
  ],
}
form.sections.push({
  code: 'work',
  title: 'Work',
  items: [question('hours', { type: 'integer', required: true }), question('secret', { privateTo: 'yard' })],
})
const send = (token: string, answers: Answers) =>
  submitAnswers(db, byLink(token), { release: 1, key: fresh('sending'), begunOn: TODAY, answers })
/** The turn of a response that is open, with its link. */
async function openTurn(responseId: string) {
  const taken = await db.select().from(turns).where(eq(turns.responseId, responseId))
  const open = taken.filter(t => t.handedOffAt === null && t.givenBackAt === null)
  expect(open).toHaveLength(1)
  return open[0]!
}
/** A link to the turn of a response that is open. */
const openLink = async (responseId: string) => linkTo(db, (await openTurn(responseId)).id)
const returning = (remark: string, more: Partial<Returning> = {}): Returning => ({
  remark,
  pointed: [],
  draft: null,
  ...more,
})
const typed = (seat: string, answers: Answers, base: string | null = null) => ({
  seat,
  base,
  key: 'key-of-the-draft',
  answers,
})
/** A response whose first turn is taken, and the link of the second. */
async function sendFirst() {
  const { id, token } = await releaseNew(store, form)
  const sent = await send(token, { boat: 'Teasel' })
  const [response] = await storedResponses(db, id)
  const { id: turnId, to } = await openTurn(response!.id)
  return { token, sent, response: response!, yard: await linkTo(db, turnId), turnId, to }
}

describe('turns', () => {
  it('go from party to party; each link shows only what is its own', async () => {
    const { token, sent, response, yard, to } = await sendFirst()
    const first = JSON.stringify(await loadRespondentPage(db, byLink(token)))
    expect(first).toContain('paid')
    expect(first).not.toContain('secret')
    expect([sent.next, response.turn, to]).toEqual(['Yard', 'check', ['yard@wherry.example']])
    const page = await loadRespondentPage(db, byLink(yard))
    expect([page.answers, page.turn?.returnsTo.map(t => t.name)]).toEqual([{ boat: 'Teasel' }, ['Owner']])
    expect(JSON.stringify(page.definition)).toContain('secret')
  })

  it('take only what is the party’s own to answer', async () => {
    const { yard } = await sendFirst()
    const wrong = { status: 422, code: 'wrong-answers', paths: ['hours'] }
    expect(await refusalOf(send(yard, {}))).toEqual(wrong)
    expect((await refusalOf(send(yard, { hours: 3, boat: 'Forged' }))).paths).toEqual(['boat'])
  })

  it('stay taken where a later one is given back to: the first is not given back with it', async () => {
    const { response, yard } = await sendFirst()
    await send(yard, { hours: 5 })
    const last = await openLink(response.id)
    await returnTurn(db, byLink(last), returning('How many?', { to: 'check' }))
    const page = await loadRespondentPage(db, byLink(yard))
    expect(page.turn?.returnsTo.map(t => t.name)).toEqual(['Owner'])
  })

  it('are given back with a remark, and taken once', async () => {
    const { response, yard, turnId } = await sendFirst()
    expect((await returnTurn(db, byLink(yard), returning('Which berth?'))).to).toBe('Owner')
    expect((await loadRespondentPage(db, byLink(yard))).turn?.givenBackTo).toBe('Owner')
    expect((await refusalOf(send(yard, { hours: 5 }))).code).toBe('given-back')
    expect((await refusalOf(returnTurn(db, byLink(yard), returning('Again.')))).code).toBe('not-open')
    const again = await openLink(response.id)
    expect((await loadRespondentPage(db, byLink(again))).turn?.remark).toBe('Which berth?')
    await send(again, { boat: 'Teasel, berth 4' })
    expect((await openTurn(response.id)).id).toBe(turnId)
    const next = yard
    await send(next, { hours: 5 })
    expect((await refusalOf(send(next, { hours: 6 }))).code).toBe('handed-off')
    const begun = { answers: {}, begunOn: TODAY }
    expect((await refusalOf(refetchForm(db, byLink(next), begun))).code).toBe('handed-off')
    expect((await refusalOf(returnTurn(db, byLink(again), returning('No.')))).code).toBe('not-open')
    const [whole] = await db.select().from(responses).where(eq(responses.id, response.id))
    expect([whole?.answers, whole?.turn]).toEqual([{ boat: 'Teasel, berth 4', hours: 5 }, 'thanks'])
    const details = await loadResponse(db, response.id, { email: '', mayAct: true })
    expect(details.turns.map(t => t.name)).toEqual(['Owner', 'Yard', 'Owner'])
    expect(details.history.map(h => h.kind)).toContain('posted')
  })

  it('of the demo are under way: every open one has its link', async () => {
    const rows = await db.select({ turn: responses.turn, id: responses.id }).from(responses)
    const underWay = rows.filter(r => r.turn !== null)
    expect(underWay.length).toBeGreaterThan(0)
    for (const { id, turn } of underWay) expect((await openTurn(id)).turn).toBe(turn)
  })
})

describe('returning a turn', () => {
  it('asks for nothing and loses nothing: what was filled so far comes back under the same link', async () => {
    const { response, yard } = await sendFirst()
    const draft = typed('seat-one', { hours: 'not yet a number' })
    await returnTurn(
      db,
      byLink(yard),
      returning('Which boat?', { pointed: ['boat', 'secret', 'paid'], draft }),
    )
    const owner = await openLink(response.id)
    const page = await loadRespondentPage(db, byLink(owner))
    // Only what the one sees and the other fills can be pointed at, and nothing of the other's is sent along.
    expect(page.turn?.pointed.map(q => q.code)).toEqual(['boat', 'paid'])
    expect(JSON.stringify(page)).not.toMatch(/secret|not yet/)
    await send(owner, { boat: 'Wren' })
    const again = await loadRespondentPage(db, byLink(yard))
    expect([again.answers, again.turn?.draft?.key]).toEqual([
      { boat: 'Wren', hours: 'not yet a number' },
      'key-of-the-draft',
    ])
  })

  it('goes to any turn before; those in between are opened again with what they had answered', async () => {
    const { response, yard, turnId } = await sendFirst()
    await send(yard, { hours: 5 })
    const last = await openLink(response.id)
    const lastId = (await openTurn(response.id)).id
    const { turn } = await loadRespondentPage(db, byLink(last))
    expect(turn?.returnsTo.map(t => t.name)).toEqual(['Yard', 'Owner'])
    await returnTurn(db, byLink(last), returning('Another boat.', { to: 'ask' }))
    expect((await loadRespondentPage(db, byLink(yard))).turn?.givenBackTo).toBe('Owner')
    await send(await openLink(response.id), { boat: 'Wren' })
    expect((await openTurn(response.id)).id).toBe(turnId)
    expect((await loadRespondentPage(db, byLink(yard))).answers).toEqual({ boat: 'Wren', hours: 5 })
    await send(yard, { hours: 6 })
    expect((await openTurn(response.id)).id).toBe(lastId)
    expect((await refusalOf(returnTurn(db, byLink(last), returning('No.', { to: 'thanks' })))).code).toBe(
      'no-turn-before',
    )
  })
})

describe('what is typed in a turn', () => {
  it('is kept, and never overwritten unseen', async () => {
    const { yard, token } = await sendFirst()
    const first = await keepTurn(db, byLink(yard), typed('seat-one', { hours: 1 }))
    expect((await loadRespondentPage(db, byLink(yard))).answers).toEqual({ boat: 'Teasel', hours: 1 })
    expect((await refusalOf(keepTurn(db, byLink(yard), typed('seat-two', { hours: 2 })))).code).toBe(
      'kept-by-others',
    )
    const second = await keepTurn(db, byLink(yard), typed('seat-two', { hours: 2 }, first.at))
    expect(
      (await refusalOf(keepTurn(db, byLink(yard), typed('seat-one', { hours: 3 }, first.at)))).code,
    ).toBe('kept-by-others')
    const handingOn = { release: 1, key: fresh('sending'), begunOn: TODAY, answers: { hours: 4 } }
    const unseen = submitAnswers(db, byLink(yard), { ...handingOn, seat: 'seat-one', base: first.at })
    expect((await refusalOf(unseen)).code).toBe('kept-by-others')
    await keepTurn(db, byLink(yard), typed('seat-one', { hours: 3 }, second.at))
    expect((await refusalOf(keepTurn(db, byLink(yard), typed('seat-one', { boat: 'Forged' })))).code).toBe(
      'unknown-question',
    )
    expect((await refusalOf(keepTurn(db, byLink(token), typed('seat-one', {})))).status).toBe(404)
    await send(yard, { hours: 3 })
    expect((await refusalOf(keepTurn(db, byLink(yard), typed('seat-one', { hours: 4 })))).code).toBe(
      'not-open',
    )
  })

  it('keeps its files too, which else go after some days', async () => {
    const { yard, response } = await sendFirst()
    const [stored] = await db.select().from(responses).where(eq(responses.id, response.id))
    const releaseId = stored!.releaseId
    await keepTurn(db, byLink(yard), { ...typed('seat-one', { hours: 1 }), key: 'key-of-a-kept-turn' })
    const old = { releaseId, question: 'paper', name: 'a.txt', mediaType: 'text/plain', size: 1 }
    const at = new Date(Date.now() - 5 * 86_400_000)
    const made = await db
      .insert(files)
      .values(['key-of-a-kept-turn', fresh('nobody-sent')].map(sendingKey => ({ ...old, sendingKey, at })))
      .returning({ id: files.id })
    await sweepUnclaimed(db)
    const ids = made.map(f => f.id)
    const left = await db.select({ key: files.sendingKey }).from(files).where(inArray(files.id, ids))
    expect(left).toEqual([{ key: 'key-of-a-kept-turn' }])
  })
})
