import { checkTags } from '../../documents/checkTags'
import { readWritten, tagsOf } from '../../documents/templateTags'
import type { Form } from '../../form/definition'
import type { DocumentTag, FormDocument } from '../../form/documents'
import { turnOf } from '../../parties/turns'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt } from './check'
import { example, section, text, whole, yesNo } from './exampleForms'

const TAG = { code: 'document-tag', severity: 'fault' } as const
const TORN = { code: 'document-torn', severity: 'fault' } as const
const TURN = { code: 'document-unknown-turn', severity: 'fault' } as const

/** A form with a document of some tags, for examples. */
export const withDocument = (tags: DocumentTag[], more: Partial<FormDocument> = {}): Form => ({
  ...example(
    section('boat', [
      text('name', { required: true }),
      text('remark'),
      yesNo('insured', { required: true }),
      whole('tons', { min: 1, max: 30, required: true }),
    ]),
  ),
  documents: [
    {
      ...{ code: 'order', title: 'Works order', on: 'done', fileName: 'Order {{ name }}' },
      template: { file: '00000000-0000-4000-8000-000000000000', name: 'order.docx', bytes: 1, tags },
      ...more,
    },
  ],
})
export const quoteTag = (source: string): DocumentTag => ({
  ...{ is: 'quote', source, format: null },
  words: `Boat: {{ ${source} }}`,
})

const written = (text: string): Form =>
  withDocument([], { template: { written: { body: [{ is: 'paragraph', runs: [{ text }] }] } } })

export const documentTag: Check = {
  ...TAG,
  about: 'A tag of a document names what the form does not have, or can’t be read.',
  raises: withDocument([quoteTag('nme')]),
  spares: withDocument([quoteTag('name')]),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }): Finding[] =>
      checkTags(inquiry.model.plan, tagsOf(document.template)).map(problem => {
        const tag = tagsOf(document.template)[problem.index]
        const near = problem.near === null ? '' : ` Is “${problem.near}” meant?`
        const sentence = `${nameOf(document)}, at “${tag?.words ?? ''}”: ${problem.sentence}${near}`
        return finding(TAG, null, sentence, { conflict: documentPart(inquiry, index) })
      }),
    ),
}

export const documentTorn: Check = {
  ...TORN,
  about:
    'What was written as a document has a tag that can’t be read, or a clause or loop that does not end.',
  raises: written('{{#when insured = true}}Insured.'),
  spares: written('{{#when insured = true}}Insured.{{/when}}'),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }): Finding[] => {
      const { template } = document
      if (!('written' in template)) return []
      return readWritten(template.written).problems.map(({ sentence, before, marked, after }) =>
        finding(TORN, null, `${nameOf(document)}, at “${before}${marked}${after}”: ${sentence}`, {
          conflict: documentPart(inquiry, index),
        }),
      )
    }),
}

export const documentUnknownTurn: Check = {
  ...TURN,
  about: 'A document is made when a turn is handed on, or signed in a turn, that the form does not have.',
  raises: withDocument([], { on: 'handedOn', turn: 'survey' }),
  spares: withDocument([], { on: 'handedOn' }),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }): Finding[] => {
      const { on, turn, signedBy } = document
      const named = on === 'signed' ? (signedBy ?? []) : [turn ?? []].flat()
      return named
        .filter(code => !turnOf(inquiry.form, code))
        .map(code => {
          const sentence = `${nameOf(document)} waits for the turn “${code}”, which there is not.`
          return finding(TURN, null, sentence, { conflict: documentPart(inquiry, index) })
        })
    }),
}

export const documentsOf = ({ form }: Inquiry) =>
  (form.documents ?? []).map((document, index) => ({ document, index }))
export const nameOf = ({ title, code }: FormDocument) => `The document “${title || code}”`

/** A document stands for the form as a whole, with its last section. */
export function documentPart({ model: { plan } }: Inquiry, index: number) {
  const place = plan.sections.at(-1)?.place
  return place ? [partAt(place, 'document', index)] : []
}
