import { buffer } from 'node:stream/consumers'
import { eq } from 'drizzle-orm'
import { SMTPServer } from 'smtp-server'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import type { Delivery } from '../../../core/form/deliveries'
import { sendMail } from '../../stand-ins/mailer'
import { behave } from '../../stand-ins/receiver'
import { messages } from '../../store/schema'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../../testing/testStore'
import { isoToday } from '../calendar'
import { runDeliveries } from '../deliveries/run'
import { submitAnswers } from '../submitAnswers'
import { usePostOffice } from './office'
import { postLetters } from './run'
import { smtpOffice } from './smtp'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())
afterEach(() => usePostOffice(null))

/** A mail server of this test: what it has taken. It has nobody under “gone”, and no time for “busy” at first. */
async function openMailServer() {
  const taken: string[] = []
  let tries = 0
  const refusal = (code: number) => Object.assign(new Error('Not here'), { responseCode: code })
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onRcptTo: ({ address }, _session, answer) => {
      if (address.startsWith('gone')) return answer(refusal(550))
      if (address.startsWith('busy') && (tries += 1) === 1) return answer(refusal(451))
      return answer()
    },
    onData: (stream, _session, answer) => {
      void buffer(stream).then(content => {
        taken.push(content.toString('utf8').replaceAll('=\r\n', ''))
        answer()
      })
    },
  })
  await new Promise<void>(done => server.listen(0, '127.0.0.1', () => done()))
  const address = server.server.address()
  const port = typeof address === 'object' && address ? address.port : 0
  const site = 'https://forms.wherry.example'
  usePostOffice(
    smtpOffice(`smtp://127.0.0.1:${port}`, { from: 'yard@wherry.example', site, soon: () => undefined }),
  )
  return { taken, close: () => new Promise<void>(done => server.close(() => done())) }
}
const THANKS: Delivery = {
  ...{ code: 'thanks', title: '', on: 'done' },
  act: {
    ...{ do: 'message', to: { answer: 'mail' }, subject: 'Yours', attached: ['copy'] },
    text: 'Dear {{ boat }}, see /f/abc.',
  },
}
const lettersTo = (to: string) => store.db.select().from(messages).where(eq(messages.to, to))

describe('the post', () => {
  it('posts what waits once, by two who look at once, with whole links, as text and HTML, with what goes with it', async () => {
    const { db } = store
    const { taken, close } = await openMailServer()
    const items = [question('boat', { required: true }), question('mail', { type: 'email', required: true })]
    const { id, token } = await releaseNew(store, formOf(items, { deliveries: [THANKS] }))
    const to = `${fresh('zoe')}@wherry.example`
    const answers = { boat: '<b>Tern</b>', mail: to }
    const sending = { release: 1, key: fresh('post'), begunOn: isoToday(), answers }
    await submitAnswers(db, byLink(token), sending)
    await runDeliveries(db)
    expect(await lettersTo(to)).toMatchObject([{ state: 'waiting' }])
    await Promise.all([postLetters(db), postLetters(db)])
    await close()
    const [response] = await storedResponses(db, id)
    expect(await lettersTo(to)).toMatchObject([{ state: 'sent', tries: 1, responseId: response?.id }])
    expect((await lettersTo(to))[0]?.text).toBe('Dear <b>Tern</b>, see /f/….')
    const letter = taken.filter(t => t.includes(to))
    expect(letter).toHaveLength(1)
    for (const part of [
      'From: yard@wherry.example',
      'Dear <b>Tern</b>, see https://forms.wherry.example/f/abc.',
      'Dear &lt;b&gt;Tern&lt;/b&gt;',
      'href=3D"https://forms.wherry.example/f/abc"',
      'Content-Type: application/pdf; name=boat-1.pdf',
      Buffer.from('%PDF-').toString('base64').slice(0, 6),
    ])
      expect(letter[0]).toContain(part)
  })

  it('tries again what is refused for now, and not what is refused for good', async () => {
    const { db } = store
    const { close } = await openMailServer()
    const [gone, busy] = [`gone_${fresh('x')}@wherry.example`, `busy_${fresh('x')}@wherry.example`]
    const about = { responseId: null, subject: 'A word', text: 'Good day' }
    await db.transaction(tx =>
      sendMail(tx, [
        { ...about, to: gone },
        { ...about, to: busy },
      ]),
    )
    await postLetters(db)
    expect(await lettersTo(gone)).toMatchObject([{ state: 'bounced', tries: 1 }])
    const [waits] = await lettersTo(busy)
    expect(waits).toMatchObject({ state: 'waiting', tries: 1 })
    expect(waits?.said).toContain('Not here')
    expect(Math.round(((waits?.dueAt.getTime() ?? 0) - Date.now()) / 60_000)).toBe(1)
    await db
      .update(messages)
      .set({ dueAt: new Date(0) })
      .where(eq(messages.to, busy))
    await postLetters(db)
    expect(await lettersTo(busy)).toMatchObject([{ state: 'sent', tries: 2, said: '' }])
    await close()
    const lost = `${fresh('lost')}@wherry.example`
    await sendMail(db, [{ ...about, to: lost }])
    await postLetters(db)
    expect(await lettersTo(lost)).toMatchObject([{ state: 'waiting', tries: 1 }])
  })
})

describe('the simulated post', () => {
  it('is there without a mail server: what goes to an address that is told to bounce comes back', async () => {
    const { db } = store
    const [one, other, third] = ['a', 'b', 'c'].map(name => `${fresh(name)}@wherry.example`)
    await behave(db, {
      hooks: 'takes',
      payments: 'takes',
      bounces: [one?.toUpperCase() ?? '', '@Gone.example'],
    })
    const about = { responseId: null, subject: 'A word', text: 'Good day' }
    const sent = [one, `${fresh('d')}@gone.example`, other, third].map(to => ({ ...about, to: to ?? '' }))
    await sendMail(db, sent)
    const states = await Promise.all(sent.map(async ({ to }) => (await lettersTo(to))[0]?.state))
    expect(states).toEqual(['bounced', 'bounced', 'sent', 'sent'])
    await behave(db, { hooks: 'takes', payments: 'takes', bounces: [] })
  })
})
