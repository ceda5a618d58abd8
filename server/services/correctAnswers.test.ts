import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import { Opening } from '../../core/form/opening'
import type { Database } from '../store/database'
import { messages, responses } from '../store/schema'
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
import { isoToday } from './calendar'
import { mailCopy } from './mailCopy'
import { saveOpening } from './openings'
import { loadRespondentPage } from './respondentPage'
import { loadResponse } from './responses'
import { submitAnswers } from './submitAnswers'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const FORM = formOf([
  question('name', { required: true }),
  question('mail', { type: 'email' }),
  question('boat', { shownWhen: 'name = "Oda"' }),
])
const sending = (answers: Answers, more: object = {}) => ({
  ...{ release: 1, key: fresh('sending'), begunOn: isoToday(), answers, ...more },
})
const open = (link: string) => loadRespondentPage(db, byLink(link))
const correct = async (link: string, answers: Answers, base?: string) =>
  submitAnswers(db, byLink(link), sending(answers, { base: base ?? (await open(link)).own?.at }))

/** A response that was sent, and its own link. */
async function sent(corrections: Opening['corrections'], answers: Answers = { name: 'Oda', boat: 'Wren' }) {
  const { id, token } = await releaseNew(store, FORM)
  const allow = (how: Opening['corrections'], more: object = {}) =>
    saveOpening(db, id, Opening.parse({ corrections: how, ...more }))
  await allow(corrections)
  const body = sending(answers)
  const { own } = await submitAnswers(db, byLink(token), body)
  return { id, token, allow, key: body.key, own: own ?? '' }
}

describe('a response that was sent', () => {
  it('is corrected by its own link: the rules are decided again, what stood before is in its history', async () => {
    const { id, own } = await sent('open')
    expect((await open(own)).own).toMatchObject({ number: 1, mayCorrect: true })
    await correct(own, { name: 'Piet', boat: 'Wren' })
    const [stored] = await storedResponses(db, id)
    // The question of the boat is not asked of Piet.
    expect(stored?.answers).toEqual({ name: 'Piet' })
    const { history } = await loadResponse(db, stored!.id, { email: '', mayAct: false })
    expect(history.map(line => line.kind)).toEqual(['corrected'])
    expect(history[0]?.changes.map(c => c.before)).toEqual(expect.arrayContaining(['Oda', 'Wren']))
    expect(await refusalOf(correct(own, {}))).toMatchObject({ code: 'wrong-answers', paths: ['name'] })
  })

  it('is not overwritten by who has not seen the last correction; the same twice is taken once', async () => {
    const { own } = await sent('open')
    const first = (await open(own)).own?.at
    await correct(own, { name: 'Piet' })
    await correct(own, { name: 'Piet' }, first)
    expect(await refusalOf(correct(own, { name: 'Jan' }, first))).toMatchObject({
      code: 'corrected-elsewhere',
    })
  })

  it('can be corrected for as long as the form says, and is read afterwards', async () => {
    const { id, own, allow } = await sent(14)
    const [stored] = await storedResponses(db, id)
    const backTo = (days: number) =>
      db
        .update(responses)
        .set({ sentAt: new Date(Date.now() - days * 86_400_000) })
        .where(eq(responses.id, stored!.id))
    await backTo(13)
    await correct(own, { name: 'Piet' })
    await db.update(responses).set({ correctedAt: null }).where(eq(responses.id, stored!.id))
    await backTo(15)
    expect(await refusalOf(correct(own, { name: 'Jan' }))).toMatchObject({ code: 'not-correctable' })
    expect(await open(own)).toMatchObject({ answers: { name: 'Piet' }, own: { mayCorrect: false } })
    await allow('open', { isClosed: true })
    expect(await refusalOf(correct(own, { name: 'Jan' }))).toMatchObject({ code: 'not-correctable' })
    await allow('open', { most: 1 })
    await correct(own, { name: 'Jan' })
  })

  it('has no own link where the form allows no correction', async () => {
    expect((await sent('never')).own).toBe('')
  })
})

describe('a copy by e-mail', () => {
  it('goes only to an address that the answers give, and only some times', async () => {
    const { token, key } = await sent('never', { name: 'Oda', boat: 'Wren', mail: 'oda@wherry.example' })
    const post = (to: string) => mailCopy(db, byLink(token), { key, to })
    expect(await refusalOf(post('mass@elsewhere.example'))).toMatchObject({ code: 'other-address' })
    await post('oda@wherry.example')
    const letters = await db.select().from(messages).where(eq(messages.to, 'oda@wherry.example'))
    expect(letters.at(-1)?.text).toContain('boat: Wren')
    await post('oda@wherry.example')
    await post('oda@wherry.example')
    expect(await refusalOf(post('oda@wherry.example'))).toMatchObject({ status: 429 })
  })
})
