import { createHash } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { textOfPdf } from '../../../tests/support/pdf'
import type { Form } from '../../../core/form/definition'
import { textOfContent } from '../../../core/documents/content'
import { readContent } from '../../../core/documents/docx/readContent'
import { withoutOutside } from '../../../core/documents/docx/withoutOutside'
import { documents, turns } from '../../store/schema'
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
} from '../../testing/testStore'
import { isoToday } from '../calendar'
import type { LinkUse } from '../links'
import { loadRespondentPage } from '../respondentPage'
import { loadResponse } from '../responses'
import { returnTurn } from '../returnTurn'
import { submitAnswers } from '../submitAnswers'
import { checkFile } from './checkFile'
import { loadDocument, makeByHand } from './documents'
import { readToSign } from './readToSign'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

/** A form of an owner, who asks, and a yard, which accepts: both sign the order, unless a boat is called Tern. */
function ordered(more: Partial<Form> = {}): Form {
  const form: Form = {
    ...formOf([question('boat', { required: true }), question('aside')]),
    parties: [
      { code: 'owner', name: 'Owner' },
      { code: 'yard', name: 'Yard' },
    ],
    turns: [
      { code: 'ask', party: 'owner', by: 'link', access: { s: 'fills' } },
      { code: 'accept', party: 'yard', by: 'link', access: { s: 'reads', work: 'fills' } },
    ],
    documents: [
      {
        ...{ code: 'order', title: 'Works order', on: 'signed', signedBy: ['ask', 'accept'] },
        ...{ when: 'boat != "Tern"', fileName: 'Order {{ boat }}' },
        template: { written: { body: [{ is: 'paragraph', runs: [{ text: 'Haul out {{ boat }}.' }] }] } },
      },
    ],
    ...more,
  }
  form.sections.push({ code: 'work', title: 'Work', items: [question('berth')] })
  return form
}
const sendingOf = (answers: Record<string, string | number>, key = fresh('sent')) => ({
  ...{ release: 1, key, begunOn: isoToday(), answers },
})
type Given = ReturnType<typeof sendingOf>
/** Reads what is to be signed, and signs it. */
async function signed(use: LinkUse, sending: Given, name: string, more: object = {}) {
  const { documents: due } = await readToSign(store.db, use, sending)
  const own = { name, role: 'Master', place: 'Quay', ...more }
  return { ...sending, signatures: due.map(({ code, basis }) => ({ code, basis, ...own })) }
}
const linkOf = async (responseId: string, turn: string) => {
  const [row] = await store.db
    .select({ id: turns.id })
    .from(turns)
    .where(and(eq(turns.responseId, responseId), eq(turns.turn, turn)))
  return byLink(await linkTo(store.db, row?.id ?? ''))
}
const check = (bytes: Uint8Array) =>
  checkFile(store.db, { hash: createHash('sha256').update(bytes).digest('hex'), source: fresh('source') })
const textOf = (bytes: Uint8Array) => textOfContent(readContent(bytes).body)

/** A response whose owner has signed; `id` of the response. */
async function begun(form = ordered()) {
  const { db } = store
  const { token, id: formId } = await releaseNew(store, form)
  const sending = sendingOf({ boat: 'Teasel' })
  await submitAnswers(db, byLink(token), await signed(byLink(token), sending, 'I. Marlow'))
  const [response] = await storedResponses(db, formId)
  const id = response?.id ?? ''
  return { id, formId, accept: await linkOf(id, 'accept'), ask: await linkOf(id, 'ask') }
}
const madeOf = async (id: string) => {
  const { documents: all } = await loadResponse(store.db, id, { email: '', mayAct: true })
  return all[0]
}
const fileOf = async (id: string, as: 'docx' | 'pdf', nth = -1) =>
  (await loadDocument(store.db, id, { document: (await madeOf(id))?.made.at(nth)?.id ?? '', as })).content

describe('a document that is signed', () => {
  it('is asked for where its condition holds: without a signature nothing is stored', async () => {
    const { db } = store
    const { token, id: formId } = await releaseNew(store, ordered())
    expect((await loadRespondentPage(db, byLink(token))).signs).toBe(true)
    const refused = await refusalOf(submitAnswers(db, byLink(token), sendingOf({ boat: 'Teasel' })))
    expect(refused).toMatchObject({ status: 422, code: 'not-signed' })
    expect(await storedResponses(db, formId)).toEqual([])
    const free = sendingOf({ boat: 'Tern' })
    expect((await readToSign(db, byLink(token), free)).documents).toEqual([])
    const stray = { code: 'order', basis: 'x', name: 'I. Marlow', role: '', place: '' }
    expect(await refusalOf(submitAnswers(db, byLink(token), { ...free, signatures: [stray] }))).toMatchObject(
      { code: 'nothing-to-sign' },
    )
    await submitAnswers(db, byLink(token), free)
    const [stored] = await storedResponses(db, formId)
    expect((await madeOf(stored?.id ?? ''))?.made).toEqual([])
  })

  it('is read by the second as the first has signed it, and tells of both at its end', async () => {
    const { db } = store
    const { id, accept } = await begun()
    const once = await fileOf(id, 'docx')
    expect(textOf(once)).toMatch(/^Haul out Teasel\.\nSignatures\n.*I\. Marlow, Master/s)
    expect(await madeOf(id)).toMatchObject({
      signing: { signed: [{ name: 'I. Marlow' }], isOutdated: false, waiting: [expect.any(String)] },
    })
    const { documents: due } = await readToSign(db, accept, sendingOf({}))
    expect(due[0]?.signed).toMatchObject([{ name: 'I. Marlow', role: 'Master', place: 'Quay' }])
    const drawn = { drawn: 'M10 10 L200 90 L300 20' }
    await submitAnswers(db, accept, await signed(accept, sendingOf({ berth: 'B4' }), 'T. Reed', drawn))
    const twice = await fileOf(id, 'docx')
    expect(textOf(twice)).toMatch(/^Haul out Teasel\..*I\. Marlow.*T\. Reed/s)
    expect((await madeOf(id))?.made).toHaveLength(1)
    const pdf = await fileOf(id, 'pdf')
    expect(textOfPdf(pdf)).toMatch(/T\. Reed/)
    expect(Buffer.compare(await fileOf(id, 'pdf'), pdf)).toBe(0)
    for (const [file, count] of [[once, 1] as const, [twice, 2] as const, [pdf, 2] as const])
      expect((await check(file)).known?.signed).toHaveLength(count)
    expect(await refusalOf(makeByHand(db, id, 'order', 'Ines'))).toMatchObject({ code: 'signed-only' })
  })
})

describe('what is signed', () => {
  it('is what was read: other answers than those that it told are refused, others beside it are not', async () => {
    const { db } = store
    const { token, id: formId } = await releaseNew(store, ordered())
    const sending = sendingOf({ boat: 'Teasel' })
    const given = await signed(byLink(token), sending, 'I. Marlow')
    const changed = { ...given, answers: { boat: 'Heron' } }
    expect(await refusalOf(submitAnswers(db, byLink(token), changed))).toMatchObject({
      code: 'signed-other',
    })
    expect(await storedResponses(db, formId)).toEqual([])
    await submitAnswers(db, byLink(token), { ...given, answers: { boat: 'Teasel', aside: 'Ring first' } })
    expect(await storedResponses(db, formId)).toHaveLength(1)
  })

  it('is what was read, also of what is worked out of answers that it does not tell', async () => {
    const { db } = store
    const form = ordered()
    form.sections[0]?.items.push(
      question('nights', { type: 'integer' }),
      question('fee', { type: 'value', value: 'nights * 12' }),
    )
    const [order] = form.documents ?? []
    if (order && 'written' in order.template)
      order.template = { written: { body: [{ is: 'paragraph', runs: [{ text: 'For {{ fee }}.' }] }] } }
    const { token, id: formId } = await releaseNew(store, form)
    const sending = { ...sendingOf({}), answers: { boat: 'Teasel', nights: 2 } }
    const given = await signed(byLink(token), sending, 'I. Marlow')
    const dearer = { ...given, answers: { boat: 'Teasel', nights: 9 } }
    expect(await refusalOf(submitAnswers(db, byLink(token), dearer))).toMatchObject({ code: 'signed-other' })
    await submitAnswers(db, byLink(token), given)
    const [response] = await storedResponses(db, formId)
    expect(textOf(await fileOf(response?.id ?? '', 'docx'))).toMatch(/^For 24\./)
  })
})

describe('a signed file', () => {
  it('is known again by what it is, byte for byte', async () => {
    const { id } = await begun()
    const file = await fileOf(id, 'docx')
    expect((await check(file)).known).toMatchObject({ title: 'Works order', number: 1 })
    // The same text, packed anew, is another file.
    expect((await check(withoutOutside(file))).known).toBeNull()
    const [row] = await store.db.select().from(documents).where(eq(documents.responseId, id))
    expect((await check(row?.unsigned ?? new Uint8Array())).known).toBeNull()
  })

  it('says that its signature no longer stands once the turn is opened again, and the next one is a further version', async () => {
    const { db } = store
    const { id, accept, ask } = await begun()
    const before = await fileOf(id, 'docx')
    await returnTurn(db, accept, { remark: 'Which boat?', pointed: [], draft: null })
    expect((await check(before)).known?.signed).toMatchObject([
      { name: 'I. Marlow', voidedAt: expect.any(String) },
    ])
    expect((await readToSign(db, ask, sendingOf({ boat: 'Heron' }))).documents[0]?.signed).toEqual([])
    await submitAnswers(db, ask, await signed(ask, sendingOf({ boat: 'Heron' }), 'I. Marlow'))
    expect((await madeOf(id))?.made.map(m => m.version)).toEqual([1, 2])
    expect(textOf(await fileOf(id, 'docx'))).toMatch(/^Haul out Heron\..*I\. Marlow/s)
    expect(textOf(await fileOf(id, 'docx', 0))).not.toContain('I. Marlow')
  })
})
