import { asc, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Delivery } from '../../../core/form/deliveries'
import type { Answers } from '../../../core/form/answers'
import { behave, loadOutsideWorld } from '../../stand-ins/receiver'
import { deliveryRuns, messages } from '../../store/schema'
import {
  formOf,
  fresh,
  openTestStore,
  question,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../../testing/testStore'
import { isoToday } from '../calendar'
import { submitAnswers } from '../submitAnswers'
import { saveTrays } from '../workbench'
import { postHook, signatureOf } from './hook'
import { deliverAgain } from './log'
import { runDeliveries } from './run'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const base = { title: '', on: 'done' } as const
const message = (more: object = {}) =>
  ({
    do: 'message',
    to: { answer: 'mail' },
    subject: 'For {{ boat }}',
    text: 'Dear {{ boat }}',
    ...more,
  }) as const
const tray = (name: string) => ({ do: 'tray', tray: name }) as const

async function sent(deliveries: Delivery[], answers: Answers, trays: string[] = []) {
  const { db } = store
  const form = formOf(
    [
      question('boat'),
      question('mail', { type: 'email', required: true }),
      question('tons', { type: 'integer' }),
    ],
    { deliveries },
  )
  const { id, token } = await releaseNew(store, form)
  await saveTrays(
    db,
    id,
    trays.map(name => ({ id: null, name, tells: [] })),
  )
  const sending = {
    release: 1,
    key: fresh('x'),
    begunOn: isoToday(),
    answers: { mail: 'a@wherry.example', ...answers },
  }
  await submitAnswers(db, { token, caller: null }, sending)
  await submitAnswers(db, { token, caller: null }, sending)
  const [response] = await storedResponses(db, id)
  const runs = () =>
    db.select().from(deliveryRuns).where(eq(deliveryRuns.formId, id)).orderBy(asc(deliveryRuns.madeAt))
  const letters = () =>
    db
      .select()
      .from(messages)
      .where(eq(messages.responseId, response?.id ?? ''))
  return { id, runs, letters, response }
}

describe('what is done by itself', () => {
  it('is done once for a response that was sent twice, by two who look at once, when its condition holds', async () => {
    const { runs, letters } = await sent(
      [
        { ...base, code: 'thanks', act: message({ copy: true }) },
        { ...base, code: 'heavy', when: 'tons > 10', act: message() },
      ],
      { boat: 'Teasel', tons: 4 },
    )
    await Promise.all([runDeliveries(store.db), runDeliveries(store.db)])
    await runDeliveries(store.db)
    expect(await letters()).toMatchObject([{ to: 'a@wherry.example', subject: 'For Teasel' }])
    expect((await letters())[0]?.text).toContain('tons: 4')
    expect((await runs()).map(r => [r.delivery, r.state, r.tries])).toEqual([['thanks', 'done', 1]])
  })

  it('sets off what a tray sets off, and ends where that goes round in a circle', async () => {
    const circle = ['New', 'Checked'].map((name, i): Delivery => {
      const code = `to_${i}`
      return { ...base, code, on: 'tray', tray: ['Checked', 'New'][i], act: tray(name) }
    })
    const { runs } = await sent([{ ...base, code: 'first', act: tray('new') }, ...circle], {}, [
      'New',
      'Checked',
    ])
    for (let i = 0; i < 8; i += 1) await runDeliveries(store.db)
    const done = await runs()
    expect(done.map(r => r.said)).toEqual(expect.arrayContaining(['Put into “New”.', 'Put into “Checked”.']))
    expect(done.length).toBeLessThanOrEqual(5)
    expect(done.every(r => r.state === 'done')).toBe(true)
  })

  it('waits for its hour, and is left where its condition no longer holds or there is no address', async () => {
    const { id, runs } = await sent(
      [
        { ...base, code: 'later', after: 48, when: 'tons > 10', act: message() },
        { ...base, code: 'nobody', act: message({ to: { team: 'no such team' } }) },
      ],
      { tons: 4 },
    )
    await runDeliveries(store.db)
    expect((await runs()).map(r => r.state).sort()).toEqual(['left', 'waiting'])
    await store.db
      .update(deliveryRuns)
      .set({ dueAt: new Date(0) })
      .where(eq(deliveryRuns.formId, id))
    await runDeliveries(store.db)
    expect((await runs()).find(r => r.delivery === 'later')?.said).toContain('does not hold any more')
  })
})

describe('web hooks', () => {
  it('are signed, tried again with growing pauses where they are refused, given up after a day, and sent again by hand', async () => {
    const { db } = store
    const body = '{"boat":"{{ boat }}"}'
    const act = { do: 'hook', address: 'https://crane.example/jobs', body } as const
    await behave(db, { hooks: 'refuses', payments: 'takes', bounces: [] })
    const { id, runs } = await sent([{ ...base, code: 'crane', act }], { boat: 'The "Tern"' })
    const pauses: number[] = []
    for (let i = 0; i < 8; i += 1) {
      const now = Date.now()
      await runDeliveries(db)
      const [run] = await runs()
      pauses.push(Math.round(((run?.dueAt.getTime() ?? 0) - now) / 60_000))
      await db
        .update(deliveryRuns)
        .set({ dueAt: new Date(0) })
        .where(eq(deliveryRuns.formId, id))
    }
    expect(pauses.slice(0, 7)).toEqual([1, 5, 15, 60, 180, 420, 760])
    expect(await runs()).toMatchObject([{ state: 'given up', tries: 8, said: 'Refused (503).' }])
    await behave(db, { hooks: 'takes', payments: 'takes', bounces: [] })
    await deliverAgain(db, id, (await runs())[0]?.id ?? '')
    await runDeliveries(db)
    expect(await runs()).toMatchObject([{ state: 'done' }])
    const [got] = (await loadOutsideWorld(db)).received
    expect(JSON.parse(got?.body ?? '')).toEqual({ boat: 'The "Tern"' })
    expect(got?.signature).toMatch(/^sha256=[0-9a-f]{64}$/)
  })

  it('go to no address of this machine or its neighbours', async () => {
    for (const host of ['127.0.0.1', '[::1]', '10.1.2.3', '169.254.169.254', '[::ffff:127.0.0.1]']) {
      const { isTaken, said } = await postHook(store.db, `https://${host}/`, {
        body: '{}',
        secret: 's',
        key: 'k',
      })
      expect([isTaken, said]).toEqual([false, expect.stringContaining('not an address of the outside world')])
    }
  })

  it('the signature is that of the worked example of RFC 4231', () => {
    expect(signatureOf('Jefe', 'what do ya want for nothing?')).toBe(
      'sha256=5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843',
    )
  })
})
