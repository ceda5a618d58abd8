import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Opening } from '../../core/form/opening'
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
import type { Database } from '../store/database'
import { isoToday } from './calendar'
import { saveEdits } from './drafts'
import { loadOpening, saveOpening, withdrawRelease } from './openings'
import { releaseForm } from './releases'
import { loadRespondentPage } from './respondentPage'
import { submitAnswers } from './submitAnswers'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const FORM = formOf([question('name')])
const sending = (release: number) => ({
  ...{ release, key: fresh('sending'), begunOn: isoToday(), answers: { name: 'Oda' } },
})
const send = (token: string, release = 1) => submitAnswers(db, byLink(token), sending(release))
const opened = (token: string) => loadRespondentPage(db, byLink(token))

/** A form with its address, released once. */
async function released() {
  const { id, token } = await releaseNew(store, FORM)
  return { id, token, address: (await loadOpening(db, id)).token }
}
/** Releases the form anew, with another title for its section. */
async function releaseAgain(id: string, revision: number) {
  const edit = { do: 'change' as const, what: 'section/s' as const, set: { title: `S${revision}` } }
  await saveEdits(db, id, store.designer.id, revision, [edit])
  return releaseForm(db, id, store.designer, { revision: revision + 1 })
}

describe('the address of a form', () => {
  it('leads to the newest version; what was begun on an older one finishes there', async () => {
    const { id, token, address } = await released()
    expect(await opened(address)).toMatchObject({ release: 1, token })
    const second = await releaseAgain(id, 0)
    expect(await opened(address)).toMatchObject({ release: 2, token: second.token })
    expect(await opened(token)).toMatchObject({ release: 1, token })
    await send(token)
    expect((await send(second.token, 2)).number).toBe(2)
    expect(await storedResponses(db, id)).toHaveLength(2)
  })

  it('passes over a version that was withdrawn, which takes nothing until it is put back', async () => {
    const { id, token, address } = await released()
    const second = await releaseAgain(id, 0)
    await withdrawRelease(db, id, 2, true)
    expect(await opened(address)).toMatchObject({ release: 1 })
    expect(await refusalOf(send(second.token, 2))).toMatchObject({ status: 410, code: 'version-withdrawn' })
    await withdrawRelease(db, id, 1, true)
    expect(await refusalOf(opened(address))).toMatchObject({ status: 410, code: 'version-withdrawn' })
    await withdrawRelease(db, id, 2, false)
    expect(await opened(address)).toMatchObject({ release: 2 })
    expect(await refusalOf(opened(token))).toMatchObject({ code: 'version-withdrawn' })
    expect(await refusalOf(withdrawRelease(db, id, 7, true))).toMatchObject({ status: 404 })
  })
})

describe('an opening', () => {
  const setTo = (id: string, settings: object) => saveOpening(db, id, Opening.parse(settings))
  const minutesFromNow = (minutes: number) =>
    new Date(Date.now() + minutes * 60_000).toISOString().slice(0, 16)

  it('closes and opens the form under all its links, with a word to whoever comes', async () => {
    const { id, token, address } = await released()
    await setTo(id, { isClosed: true, between: 'The slip is being mended.' })
    for (const link of [token, address]) {
      await expect(opened(link)).rejects.toMatchObject({ refusal: { sentence: 'The slip is being mended.' } })
      expect(await refusalOf(send(link))).toEqual({ status: 403, code: 'closed-for-now', paths: [] })
    }
    await setTo(id, {})
    expect((await send(token)).number).toBe(1)
  })

  it('takes nothing before its time; after it only what was begun, for some minutes', async () => {
    const { id, token } = await released()
    await setTo(id, { opensAt: minutesFromNow(30) })
    expect(await refusalOf(send(token))).toMatchObject({ code: 'not-open-yet' })
    await setTo(id, { closesAt: minutesFromNow(-10), lateBy: 60 })
    expect(await refusalOf(opened(token))).toMatchObject({ code: 'closed' })
    expect((await send(token)).number).toBe(1)
    await setTo(id, { closesAt: minutesFromNow(-10), lateBy: 0 })
    expect(await refusalOf(send(token))).toMatchObject({ code: 'closed' })
  })

  it('takes as many responses as it says, however many come at once', async () => {
    const { id, token } = await released()
    await setTo(id, { most: 5 })
    const sent = await Promise.allSettled(Array.from({ length: 24 }, () => send(token)))
    expect(sent.filter(s => s.status === 'fulfilled')).toHaveLength(5)
    const refused = sent.flatMap(s => (s.status === 'rejected' ? [s.reason] : []))
    expect(refused.every(r => r.refusal.code === 'full')).toBe(true)
    expect(await storedResponses(db, id)).toHaveLength(5)
    expect(await loadOpening(db, id)).toMatchObject({ state: 'full', standing: 5 })
    await setTo(id, { most: 6 })
    expect((await send(token)).number).toBe(6)
  })

  it('answers a sending that came before once more, also when it is full since', async () => {
    const { id, token } = await released()
    await setTo(id, { most: 1 })
    const first = sending(1)
    const taken = await submitAnswers(db, byLink(token), first)
    expect(await submitAnswers(db, byLink(token), first)).toEqual(taken)
    expect(await refusalOf(send(token))).toMatchObject({ code: 'full' })
  })
})
