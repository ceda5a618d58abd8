import { buffer } from 'node:stream/consumers'
import { eq, inArray } from 'drizzle-orm'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { docxOf, paragraphOf, tableOf } from '../../../tests/support/docx'
import { textOfPdf } from '../../../tests/support/pdf'
import type { Form } from '../../../core/form/definition'
import type { FormDocument } from '../../../core/form/documents'
import { textOfContent } from '../../../core/documents/content'
import { readContent } from '../../../core/documents/docx/readContent'
import { tagsOf } from '../../../core/documents/templateTags'
import { renameCode } from '../../../core/form/rename'
import { ExportQuery } from '../../../shared/api/responses'
import { messages, releases, turns } from '../../store/schema'
import { runTask } from '../../threads/run'
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
import { createForm } from '../drafts'
import { runDeliveries } from '../deliveries/run'
import { exportResponses } from '../exportResponses'
import { loadRespondentPage } from '../respondentPage'
import { submitAnswers } from '../submitAnswers'
import { fetchOffered } from './fetchOffered'
import { hasOffice, setByOffice } from './office'
import { bringTemplate } from './templates'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

/** A form with documents of some lines, each brought in against a draft of the same questions. */
async function withDocuments(
  bare: Form,
  lines: Record<string, [string[], Partial<FormDocument>]>,
): Promise<Form> {
  const { db, designer } = store
  const { id } = await createForm(db, { definition: bare }, designer.id)
  const documents: FormDocument[] = []
  for (const [code, [paragraphs, more]] of Object.entries(lines)) {
    const bytes = docxOf(paragraphs.map(line => paragraphOf(line)).join(''))
    const { template, problems } = await bringTemplate(db, id, {
      name: `${code}.docx`,
      bytes,
      by: designer.id,
    })
    if (!template) throw new Error(problems.map(p => p.sentence).join(' '))
    documents.push({
      code,
      title: `The ${code}`,
      on: 'done',
      fileName: `${code} {{ boat }}`,
      template,
      ...more,
    })
  }
  return { ...bare, documents }
}
const sendingOf = (answers: object, key = fresh('sent')) => ({
  ...{ release: 1, key, begunOn: isoToday() },
  answers: { ...answers },
})
const textOfDocx = (bytes: Uint8Array | undefined) =>
  textOfContent(readContent(bytes ?? new Uint8Array()).body)
const textIn = (content: string) => textOfPdf(Buffer.from(content, 'base64'))

/** A form of two turns, of which the owner never sees what the yard writes. */
function shared(): Form {
  const form: Form = {
    ...formOf([question('boat', { required: true })]),
    parties: [
      { code: 'owner', name: 'Owner' },
      { code: 'yard', name: 'Yard' },
    ],
    turns: [
      { code: 'ask', party: 'owner', by: 'link', access: { s: 'fills' } },
      { code: 'check', party: 'yard', by: 'link', access: { s: 'reads', work: 'fills' } },
    ],
  }
  form.sections.push({ code: 'work', title: 'Work', items: [question('secret')] })
  return form
}

describe('documents that are offered', () => {
  it('go as PDF files to whoever has sent, by what was sent alone', async () => {
    const { db } = store
    const form = await withDocuments(formOf([question('boat')]), {
      order: [['Order for {{ boat }}'], { offered: true }],
      heavy: [['Heavy'], { offered: true, when: 'boat = "Tern"' }],
      note: [['Note'], {}],
    })
    const { token } = await releaseNew(store, form)
    const sending = sendingOf({ boat: 'Teasel' })
    const sent = await submitAnswers(db, byLink(token), sending)
    expect(sent.documents).toEqual([{ code: 'order', title: 'The order' }])
    const ask = (code: string, key = sending.key) => fetchOffered(db, byLink(token), { key, code })
    const [first, again] = await Promise.all([ask('order'), ask('order'), runDeliveries(db)])
    expect(first.name).toBe('order Teasel.pdf')
    expect(textIn(first.content)).toContain('Order for Teasel')
    expect(again.name).toBe(first.name)
    await runDeliveries(db)
    for (const [code, key] of [['note'], ['heavy'], ['order', 'somebody-else']] as const)
      expect(await refusalOf(ask(code, key))).toMatchObject({ status: 404 })
  })

  it('go to the parties that they are for, once they are made, and never where they tell what a party never sees', async () => {
    const { db } = store
    const form = await withDocuments(shared(), {
      order: [['Order for {{ boat }}'], { offered: ['owner'] }],
      memo: [['{{#when secret = "leak"}}Leaking{{/when}}'], { offered: ['owner', 'yard'] }],
    })
    const { id, token } = await releaseNew(store, { ...form, documents: form.documents?.slice(0, 1) })
    // A release that the prover would not have let through.
    await db.update(releases).set({ definition: form }).where(eq(releases.formId, id))
    const sent = await submitAnswers(db, byLink(token), sendingOf({ boat: 'Tern' }))
    expect(sent.documents).toEqual([])
    const [response] = await storedResponses(db, id)
    const taken = await db
      .select()
      .from(turns)
      .where(eq(turns.responseId, response?.id ?? ''))
    const [own, next] = ['ask', 'check'].map(code => taken.find(t => t.turn === code))
    await submitAnswers(db, byLink(await linkTo(db, next?.id ?? '')), sendingOf({ secret: 'leak' }))
    const ownLink = byLink(await linkTo(db, own?.id ?? ''))
    const offeredBy = async (use: ReturnType<typeof byLink>) =>
      (await loadRespondentPage(db, use)).turn?.documents.map(d => d.code)
    expect(await offeredBy(ownLink)).toEqual(['order'])
    expect(await offeredBy(byLink(await linkTo(db, next?.id ?? '')))).toEqual(['memo'])
    expect(await refusalOf(fetchOffered(db, ownLink, { key: 'any', code: 'memo' }))).toMatchObject({
      status: 404,
    })
    const { content } = await fetchOffered(db, ownLink, { key: 'any', code: 'order' })
    expect(textIn(content)).toContain('Order for Tern')
  })
})

describe('documents', () => {
  it('go with a message as PDF files, made before it whoever runs first; many come as an archive', async () => {
    const { db } = store
    const bare = formOf([question('boat')], {
      deliveries: [
        {
          ...{ code: 'post', title: 'Post the order', on: 'done' },
          act: {
            ...{ do: 'message', to: { addresses: ['lift@wherry.example'] }, subject: 'Order', text: 'Here.' },
            attached: ['documents'],
          },
        },
      ],
    })
    const form = await withDocuments(bare, { order: [['Order for {{ boat }}'], {}] })
    const { id, token } = await releaseNew(store, form)
    for (const boat of ['Teasel', 'Tern']) await submitAnswers(db, byLink(token), sendingOf({ boat }))
    await Promise.all([runDeliveries(db), runDeliveries(db)])
    const stored = await storedResponses(db, id)
    const letters = await db
      .select()
      .from(messages)
      .where(
        inArray(
          messages.responseId,
          stored.map(r => r.id),
        ),
      )
    const attached = letters.flatMap(letter => letter.attachments.map(a => a.name))
    expect(attached.sort()).toEqual(['order Teasel.pdf', 'order Tern.pdf'])
    const query = ExportQuery.parse({ format: 'documents' })
    const { content } = await exportResponses(db, id, query)
    const files = unzipSync(new Uint8Array(await buffer(content)))
    expect(Object.keys(files).sort()).toEqual(['1/order Teasel.docx', '2/order Tern.docx'])
    expect(textOfDocx(files['2/order Tern.docx'])).toBe('Order for Tern')
  })

  it('are made as before once a code of their tags is called otherwise', async () => {
    const { db } = store
    const form = await withDocuments(formOf([question('boat'), question('tons', { type: 'integer' })]), {
      order: [['{{#when tons > 5 and boat != null}}Heavy: {{ boat }}{{/when}}'], {}],
    })
    const renamed = renameCode(renameCode(form, 'item/boat', 'vessel'), 'item/tons', 'weight')
    const [document] = renamed.documents ?? []
    expect(document && tagsOf(document.template)[0]).toMatchObject({
      source: 'weight > 5 and vessel != null',
    })
    const { id, token } = await releaseNew(store, renamed)
    await submitAnswers(db, byLink(token), sendingOf({ vessel: 'Teasel', weight: 9 }))
    await runDeliveries(db)
    const { content } = await exportResponses(db, id, ExportQuery.parse({ format: 'documents' }))
    const files = unzipSync(new Uint8Array(await buffer(content)))
    expect(textOfDocx(files['1/order Teasel.docx'])).toBe('Heavy: Teasel')
  })
})

describe('documents as PDF files', () => {
  it('say the same, set plainly and by LibreOffice, where that is here', async () => {
    const bytes = docxOf(paragraphOf('Order for Teasel') + tableOf(['Engine', 'kW'], ['Marlow 20', '15']))
    const plain = await runTask('setPdf', { bytes, title: 'Order' })
    const made = [plain, ...((await hasOffice()) ? [await setByOffice(bytes)] : [])]
    for (const pdf of made)
      expect(textOfPdf(pdf).match(/\S+/g)).toEqual(
        expect.arrayContaining(['Order', 'for', 'Teasel', 'Engine', 'kW', 'Marlow', '20', '15']),
      )
  })
})
