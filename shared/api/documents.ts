import { z } from 'zod'
import { BroughtFile } from '../../core/form/documents'
import { LIMITS } from '../../core/form/limits'
import { Id } from './ids'

/** What is wrong with a template, in which part of the file, with the words around it; `near`: the nearest right spelling of what is marked. */
export const TemplateProblemTold = z.object({
  sentence: z.string(),
  part: z.enum(['body', 'header', 'footer', 'notes']),
  before: z.string(),
  marked: z.string(),
  after: z.string(),
  near: z.string().nullable(),
})
export type TemplateProblemTold = z.infer<typeof TemplateProblemTold>

/** What a file is called that is brought in as a template. Its content is the body. */
export const TemplateName = z.object({ name: z.string().trim().min(1).max(LIMITS.label) })

/** What came of it: the template as a document of the form names it, or all that is wrong with it; then nothing was kept. */
export const BroughtTemplate = z.object({
  template: BroughtFile.nullable(),
  problems: z.array(TemplateProblemTold),
})
export type BroughtTemplate = z.infer<typeof BroughtTemplate>

export const OneTemplate = Id.extend({ template: z.uuid() })
export const OneDocument = Id.extend({ document: z.uuid() })

/** A document that was made of a response: its number among those of its kind, from 1 on. */
export const MadeDocument = z.object({
  id: z.string(),
  name: z.string(),
  version: z.int(),
  at: z.string(),
  bytes: z.int(),
})

/** A document that a response has, or can have made: `isMeant` by its condition as the answers are now. */
export const ResponseDocument = z.object({
  /** How PDF files of it are made here. */
  pdf: z.enum(['exact', 'plain']),
  code: z.string(),
  title: z.string(),
  isMeant: z.boolean(),
  made: z.array(MadeDocument),
})
export type ResponseDocument = z.infer<typeof ResponseDocument>

/** As what a document is fetched: as it was made, or as a PDF file. */
export const DocumentAs = z.object({ as: z.enum(['docx', 'pdf']).default('docx') })

/** A document that whoever has sent a response is offered. */
export const OfferedDocument = z.object({ code: z.string(), title: z.string() })
export type OfferedDocument = z.infer<typeof OfferedDocument>

/** Asks for it: by the key under which the response was sent. */
export const DocumentAsked = z.strictObject({
  key: z.string().min(1).max(100),
  code: z.string().max(LIMITS.code),
})
/** The document as a PDF file: what it is called, and its bytes in base64 (RFC 4648). */
export const DocumentOffered = z.object({ name: z.string(), content: z.string() })
export type DocumentOffered = z.infer<typeof DocumentOffered>

/** Makes a document of a response as it is now: a further version, where its answers or its template are others than before. */
export const DocumentToMake = z.strictObject({ code: z.string().max(LIMITS.code) })
