import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '../../core/fill/draw'
import { answersInPlay, fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { drawPlausibleAnswers } from '../../core/fill/plausible'
import type { Answers } from '../../core/form/answers'
import { prove } from '../../core/prove/prove'
import { smallForm } from '../../tests/support/forms'
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
import { refuseTooLarge } from '../http/readBody'
import { receiveFile } from '../store/fileFolder'
import { loadFile, takeFile } from './files'
import { submitAnswers } from './submitAnswers'

/** What stands in a file, as a whole. */
async function textOf(content: Uint8Array | AsyncIterable<Uint8Array>): Promise<string> {
  const pieces: Uint8Array[] = []
  if (content instanceof Uint8Array) pieces.push(content)
  else for await (const piece of content) pieces.push(piece)
  return Buffer.concat(pieces).toString('utf8')
}

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const TODAY = isoToday()
const sendingOf = (answers: Answers, more: Record<string, unknown> = {}) => ({
  release: 1,
  key: fresh('sending'),
  begunOn: TODAY,
  answers,
  ...more,
})

describe('responses', () => {
  it('are stored just as the rules leave them, however much else is sent; the same sending once', async () => {
    await fc.assert(
      fc.asyncProperty(smallForm, fc.nat(1_000), async (form, seed) => {
        const plan = planOf(form)
        if (prove(form, TODAY).findings.some(f => f.severity === 'fault')) return
        const answers = drawPlausibleAnswers(plan, {}, TODAY, seededRandom(seed), () => ['oak'], seed % 2)
        if (!answers) return
        const { id, token } = await releaseNew(store, form)
        const sending = sendingOf(answers)
        await submitAnswers(db, byLink(token), sending)
        await submitAnswers(db, byLink(token), sending)
        const stored = await storedResponses(db, id)
        expect(stored.map(r => r.answers)).toEqual([answersInPlay(fill(plan, answers, TODAY))])
      }),
      { numRuns: 25 },
    )
  })

  it('that don’t fit are refused as a whole, each problem at its place', async () => {
    const form = formOf([
      question('name', { required: true }),
      question('size', { type: 'integer', min: 2 }),
      question('gone', { shownWhen: 'size > 5' }),
      question('pick', { type: 'choice', options: [{ code: 'a', label: 'A' }] }),
    ])
    const { id, token } = await releaseNew(store, form)
    const send = (answers: Answers, more = {}) => submitAnswers(db, byLink(token), sendingOf(answers, more))
    const wrong = { status: 422, code: 'wrong-answers' }
    expect(await refusalOf(send({ size: 1 }))).toEqual({ ...wrong, paths: ['name', 'size'] })
    expect(await refusalOf(send({ name: 'Teasel', pick: 'z' }))).toEqual({ ...wrong, paths: ['pick'] })
    const unknown = { status: 422, code: 'unknown-question', paths: ['mast'] }
    expect(await refusalOf(send({ name: 'Teasel', mast: 3 }))).toEqual(unknown)
    expect((await refusalOf(send({ name: 'Teasel' }, { release: 2 }))).code).toBe('outdated')
    expect((await refusalOf(send({ name: 'Teasel' }, { begunOn: '2001-01-01' }))).code).toBe('wrong-day')
    expect((await refusalOf(submitAnswers(db, byLink('nowhere'), sendingOf({})))).status).toBe(404)
    expect(await storedResponses(db, id)).toEqual([])
    await send({ name: 'Teasel', size: 3, gone: 'not asked' })
    expect((await storedResponses(db, id)).map(r => r.answers)).toEqual([{ name: 'Teasel', size: 3 }])
  })
})

describe('responses', () => {
  it('with files: told by their content, bound to the sending that gave them', async () => {
    const plan = question('plan', { type: 'file', kinds: ['text'], megabytes: 1 })
    const picture = question('picture', { type: 'file', kinds: ['image'] })
    const { token } = await releaseNew(store, formOf([plan, picture]))
    const sending = fresh('sending')
    const give = (content: string | Uint8Array, name = 'plan.txt', of = 'plan') => {
      const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content
      return takeFile(db, byLink(token), { question: of, key: sending, name }, most =>
        receiveFile(write => (bytes.length > most ? refuseTooLarge(most) : write(bytes))),
      )
    }
    const pdf = new TextEncoder().encode('%PDF-1.7')
    expect((await refusalOf(give(''))).code).toBe('file-empty')
    expect((await refusalOf(give(pdf))).code).toBe('wrong-kind')
    expect((await refusalOf(give(new Uint8Array([1, 2, 3])))).code).toBe('wrong-kind')
    expect((await refusalOf(give('x'.repeat(1_000_001)))).status).toBe(413)
    expect((await refusalOf(give('a', 'a.txt', 'other'))).code).toBe('no-file-question')
    const file = await give('Deck plan')
    const send = (more = {}, answers: Answers = { plan: [file] }) =>
      submitAnswers(db, byLink(token), sendingOf(answers, more))
    expect((await refusalOf(send())).code).toBe('unknown-file')
    // What was given for one question is no answer to another, whatever that one takes.
    const elsewhere = await refusalOf(send({ key: sending }, { picture: [file] }))
    expect(elsewhere.code).toBe('unknown-file')
    await send({ key: sending })
    const kept = await loadFile(db, file.file)
    expect([kept.name, kept.size, await textOf(kept.content)]).toEqual(['plan.txt', 9, 'Deck plan'])
    expect(kept.responseId).not.toBeNull()
  })
})
