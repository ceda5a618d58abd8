import { z } from 'zod'
import { Code, Expression, Label } from './fields'
import { LIMITS } from './limits'
import { TEMPLATE_FORMATS } from './tags'
import { withWrittenSources, WrittenDocument } from './written'

const Source = z.string().min(1).max(LIMITS.expression)
const Words = z.string().max(200)

/** A tag that a template has, in its order, with the words around it: what is proven of a document stands on these. */
export const DocumentTag = z.discriminatedUnion('is', [
  z.strictObject({
    is: z.literal('quote'),
    source: Source,
    format: z.enum(TEMPLATE_FORMATS).nullable(),
    words: Words,
  }),
  z.strictObject({ is: z.literal('when'), source: Source, words: Words }),
  z.strictObject({ is: z.literal('else'), words: Words }),
  z.strictObject({ is: z.literal('each'), source: Source, words: Words }),
  z.strictObject({ is: z.literal('end'), of: z.enum(['when', 'each']), words: Words }),
])
export type DocumentTag = z.infer<typeof DocumentTag>

/** A file that was brought in as a template: under which id it is kept, what it is called, its bytes, and its tags. */
export const BroughtFile = z.strictObject({
  file: z.uuid(),
  name: z.string().min(1).max(LIMITS.label),
  bytes: z.int().min(1),
  tags: z.array(DocumentTag).max(LIMITS.documentTags),
})
export type BroughtFile = z.infer<typeof BroughtFile>

/** What a document is made from: a file that was brought in, or what was written here. */
export const DocumentTemplate = z.union([BroughtFile, z.strictObject({ written: WrittenDocument })])
export type DocumentTemplate = z.infer<typeof DocumentTemplate>

/** When a document is made by itself: a turn is handed on, the response is done, or it is signed. */
export const DOCUMENT_EVENTS = ['handedOn', 'done', 'signed'] as const

/**
 * A document that is made of a response: from which template, when, and what the file is called (may quote answers). `offered`: whom it is offered
 * to, as a PDF: whoever answers, or some parties by their codes; none where that is left out. `signedBy`: the turns that sign it, in order, where it
 * is made when it is signed: it is made as the first of them hands on, and does not change from then on. In a form without turns whoever answers signs.
 */
export const FormDocument = z.strictObject({
  code: Code,
  title: Label,
  on: z.enum(DOCUMENT_EVENTS),
  turn: Code.optional(),
  signedBy: z.array(Code).min(1).max(LIMITS.signers).optional(),
  when: Expression.optional(),
  fileName: Label,
  offered: z.union([z.literal(true), z.array(Code).min(1).max(LIMITS.parties)]).optional(),
  template: DocumentTemplate,
})
export type FormDocument = z.infer<typeof FormDocument>

/** The turn at whose hand-off a document is made; undefined where it is made when the response is done, or at any hand-off. */
export const turnMadeAt = ({ on, turn, signedBy }: FormDocument): string | undefined => {
  if (on === 'done') return undefined
  return on === 'signed' ? signedBy?.[0] : turn
}

/** Whether a turn signs a document; null: whoever answers a form without turns. */
export const isSignedIn = ({ on, signedBy }: FormDocument, turn: { code: string } | null): boolean =>
  on === 'signed' && (turn === null ? signedBy === undefined : signedBy?.includes(turn.code) === true)

/** A document with other texts with quotes, and other expressions in its tags. */
export const withDocumentTexts = (
  document: FormDocument,
  { text, source }: Record<'text' | 'source', (text: string) => string>,
): FormDocument => ({
  ...document,
  fileName: text(document.fileName),
  template: withSources(document.template, source),
})

function withSources(template: DocumentTemplate, source: (text: string) => string): DocumentTemplate {
  if ('written' in template) return { written: withWrittenSources(template.written, source) }
  const tags = template.tags.map(tag => ('source' in tag ? { ...tag, source: source(tag.source) } : tag))
  return { ...template, tags }
}
