import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import {
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { isoToday } from './calendar'
import { loadRespondentPage, refetchForm } from './respondentPage'
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
  submitAnswers(db, token, { release: 1, key: fresh('sending'), begunOn: TODAY, answers })
/** The turn of a response that is open, with its link. */
async function openTurn(responseId: string) {
  const taken = await db.select().from(turns).where(eq(turns.responseId, responseId))
  const open = taken.filter(t => t.handedOffAt === null)
  expect(open).toHaveLength(1)
  return open[0]!
}
/** A response whose first turn is taken, and the link of the second. */
async function sendFirst() {
  const { id, token } = await releaseNew(store, form)
  const sent = await send(token, { boat: 'Teasel' })
  const [response] = await storedResponses(db, id)
  const { token: yard, to } = await openTurn(response!.id)
  return { token, sent, response: response!, yard, to }
}

describe('turns', () => {
  it('go from party to party; each link shows only what is its own', async () => {
    const { token, sent, response, yard, to } = await sendFirst()
    const first = JSON.stringify(await loadRespondentPage(db, token))
    expect(first).toContain('paid')
    expect(first).not.toContain('secret')
    expect([sent.next, response.turn, to]).toEqual(['Yard', 'check', ['yard@wherry.example']])
    const page = await loadRespondentPage(db, yard)
    expect([page.answers, page.turn?.returnsTo]).toEqual([{ boat: 'Teasel' }, 'Owner'])
    expect(JSON.stringify(page.definition)).toContain('secret')
  })

  it('take only what is the party’s own to answer', async () => {
    const { yard } = await sendFirst()
    const wrong = { status: 422, code: 'wrong-answers', paths: ['hours'] }
    expect(await refusalOf(send(yard, {}))).toEqual(wrong)
    expect((await refusalOf(send(yard, { hours: 3, boat: 'Forged' }))).paths).toEqual(['boat'])
  })

  it('are given back with a remark, and taken once', async () => {
    const { response, yard } = await sendFirst()
    expect((await returnTurn(db, yard, 'Which berth?')).to).toBe('Owner')
    expect((await refusalOf(loadRespondentPage(db, yard))).status).toBe(404)
    const again = (await openTurn(response.id)).token
    expect((await loadRespondentPage(db, again)).turn?.remark).toBe('Which berth?')
    await send(again, { boat: 'Teasel, berth 4' })
    const next = (await openTurn(response.id)).token
    await send(next, { hours: 5 })
    expect((await refusalOf(send(next, { hours: 6 }))).code).toBe('handed-off')
    const begun = { answers: {}, begunOn: TODAY }
    expect((await refusalOf(refetchForm(db, next, begun))).code).toBe('handed-off')
    expect((await refusalOf(returnTurn(db, again, 'No.'))).code).toBe('no-turn-before')
    const [whole] = await db.select().from(responses).where(eq(responses.id, response.id))
    expect([whole?.answers, whole?.turn]).toEqual([{ boat: 'Teasel, berth 4', hours: 5 }, 'thanks'])
    const details = await loadResponse(db, response.id, true)
    expect(details.turns.map(t => t.name)).toEqual(['Owner', 'Yard', 'Owner'])
    expect(details.messages.length).toBeGreaterThan(0)
  })

  it('of the demo are under way: every open one has its link', async () => {
    const rows = await db.select({ turn: responses.turn, id: responses.id }).from(responses)
    const underWay = rows.filter(r => r.turn !== null)
    expect(underWay.length).toBeGreaterThan(0)
    for (const { id, turn } of underWay) expect((await openTurn(id)).turn).toBe(turn)
  })
})
