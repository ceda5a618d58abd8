import { strFromU8, unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { docxOf, paragraphOf } from '../../../tests/support/docx'
import type { Form } from '../../../core/form/definition'
import type { Answers } from '../../../core/form/answers'
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
} from '../../testing/testStore'
import { amendResponse, loadCorrectable } from '../amendResponse'
import { isoToday } from '../calendar'
import { createForm, loadFormRow } from '../drafts'
import { copyForm } from '../keepForms'
import { runDeliveries } from '../deliveries/run'
import { loadResponse } from '../responses'
import { submitAnswers } from '../submitAnswers'
import { loadDocument, makeByHand } from './documents'
import { refuseForeignTemplates } from './refuseForeign'
import { bringTemplate, findTemplate } from './templates'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const ORDER = docxOf(
  paragraphOf('Order for {{ boat }}') +
    paragraphOf('{{#when tons > 10}}Heavy lift.{{else}}Light lift.{{/when}}') +
    paragraphOf('Number {{ response.number }}'),
)
const ASKED = [question('boat'), question('tons', { type: 'integer' })]

describe('documents', () => {
  it('are made once by themselves when a response is done, kept as they were made, and made anew by hand where the answers changed', async () => {
    const { db } = store
    const { form, template } = await brought()
    const { id, token } = await releaseNew(store, form)
    const sending = {
      release: 1,
      key: fresh('x'),
      begunOn: isoToday(),
      answers: { boat: 'Teasel: 2', tons: 4 },
    }
    await submitAnswers(db, byLink(token), sending)
    await submitAnswers(db, byLink(token), sending)
    await Promise.all([runDeliveries(db), runDeliveries(db)])
    const [response] = await storedResponses(db, id)
    const responseId = response?.id ?? ''
    const first = await documentsOf(responseId)
    expect(first).toEqual([['Order Teasel 2.docx', ['Order for Teasel: 2', 'Light lift.', 'Number 1']]])
    await makeByHand(db, responseId, 'order', 'Ines')
    expect(await documentsOf(responseId)).toEqual(first)
    const { base } = await loadCorrectable(db, responseId)
    await amendResponse(db, responseId, { answers: { tons: 14 }, reason: 'weighed', base }, 'Ines')
    await makeByHand(db, responseId, 'order', 'Ines')
    expect(await documentsOf(responseId)).toEqual([
      ...first,
      ['Order Teasel 2 (2).docx', ['Order for Teasel: 2', 'Heavy lift.', 'Number 1']],
    ])
    expect(template.tags.map(t => t.is)).toEqual(['quote', 'when', 'else', 'end', 'quote'])
  })

  it('of a condition that does not hold are not made, of a template from elsewhere not released', async () => {
    const { db } = store
    const { form, template } = await brought({ when: 'tons > 10' })
    const { id, token } = await releaseNew(store, form)
    const answers: Answers = { boat: 'Tern', tons: 2 }
    await submitAnswers(db, byLink(token), { release: 1, key: fresh('x'), begunOn: isoToday(), answers })
    await runDeliveries(db)
    const [response] = await storedResponses(db, id)
    expect(await documentsOf(response?.id ?? '')).toEqual([])
    expect(await refusalOf(makeByHand(db, response?.id ?? '', 'order', 'Ines'))).toMatchObject({
      code: 'not-meant',
    })
    const [own] = form.documents ?? []
    if (!own) throw new Error('no document')
    const withTemplate = (part: Partial<typeof template>) => ({
      ...form,
      documents: [{ ...own, template: { ...template, ...part } }],
    })
    for (const odd of [{ file: '00000000-0000-4000-8000-000000000000' }, { tags: template.tags.slice(1) }])
      expect(await refusalOf(refuseForeignTemplates(db, withTemplate(odd)))).toMatchObject({
        code: 'no-template',
      })
  })
})

describe('templates', () => {
  it('of a copied form are its own', async () => {
    const { db, designer } = store
    const { form } = await brought()
    const { id } = await createForm(db, { definition: form }, designer.id)
    const copied = await copyForm(db, id, 'Another order', designer.id)
    const { draft } = await loadFormRow(db, copied.id)
    const [file, before] = [draft, form].map(f => fileOf(f))
    expect(file).not.toBe(before)
    expect(await findTemplate(db, file ?? '')).toMatchObject({ formId: copied.id, name: 'order.docx' })
    await refuseForeignTemplates(db, draft)
  })

  it('with a wrong tag are not kept', async () => {
    const { db, designer } = store
    const { id } = await createForm(db, { definition: formOf(ASKED, {}) }, designer.id)
    const wrong = await bringTemplate(db, id, {
      ...{ name: 'wrong.docx', by: designer.id },
      bytes: docxOf(paragraphOf('For {{ bot }} and {{#when tons}}')),
    })
    expect([wrong.template, wrong.problems.length]).toEqual([null, 3])
    const named = await bringTemplate(db, id, {
      ...{ name: 'wrong.docx', by: designer.id },
      bytes: docxOf(paragraphOf('For {{ bot }}')),
    })
    expect(named.problems).toMatchObject([{ marked: '{{ bot }}', before: 'For ', near: 'boat' }])
    const noDocx = bringTemplate(db, id, {
      name: 'x.docx',
      by: designer.id,
      bytes: new Uint8Array([1, 2, 3]),
    })
    expect(await refusalOf(noDocx)).toMatchObject({ code: 'no-template' })
  })
})

/** Under which id the first template of a form is kept. */
function fileOf({ documents }: Form): string {
  const template = documents?.[0]?.template
  return template && 'file' in template ? template.file : ''
}

/** A form with the works order as its document, brought in against a draft of the same questions. */
async function brought(more: object = {}) {
  const { db, designer } = store
  const { id } = await createForm(db, { definition: formOf(ASKED, {}) }, designer.id)
  const { template } = await bringTemplate(db, id, { name: 'order.docx', bytes: ORDER, by: designer.id })
  if (!template) throw new Error('the template has errors')
  const document = {
    code: 'order',
    title: 'Order',
    on: 'done' as const,
    fileName: 'Order {{ boat }}',
    template,
    ...more,
  }
  const form: Form = formOf(ASKED, { documents: [document] })
  return { form, template }
}

/** The documents of a response: their names and the lines in them. */
async function documentsOf(responseId: string): Promise<[string, string[]][]> {
  const { db } = store
  const { documents } = await loadResponse(db, responseId, { email: '', mayAct: true })
  const made = documents.flatMap(d => d.made)
  return Promise.all(
    made.map(async ({ id, name }): Promise<[string, string[]]> => {
      const { content } = await loadDocument(db, responseId, { document: id, as: 'docx' })
      const xml = strFromU8(unzipSync(content)['word/document.xml'] ?? new Uint8Array())
      const lines = [...xml.matchAll(/<w:p>(.*?)<\/w:p>/gs)].map(p =>
        [...(p[1] ?? '').matchAll(/<w:t[^>]*>(.*?)<\/w:t>/g)].map(t => t[1]).join(''),
      )
      return [name, lines]
    }),
  )
}
