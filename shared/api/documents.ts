import { z } from 'zod'
import { isDrawing } from '../../core/fill/drawnSignature'
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

/** The files that are kept as templates of a form: under which id, what they were called, when, and who brought them in. */
export const KeptTemplates = z.object({
  templates: z.array(
    z.object({ id: z.string(), name: z.string(), bytes: z.int(), by: z.string(), at: z.string() }),
  ),
})
export type KeptTemplates = z.infer<typeof KeptTemplates>

/** With the tags that a document of the draft has, where they were called otherwise since. */
export const TemplateAs = z.object({ document: z.string().max(LIMITS.code).optional() })

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

/** A signature of a document: in which turn (by its name), of whom, when; `voidedAt`: when it ceased to stand, because the turn was opened again. */
export const SignatureTold = z.object({
  turn: z.string(),
  name: z.string(),
  role: z.string(),
  place: z.string(),
  at: z.string(),
  voidedAt: z.string().nullable(),
})
export type SignatureTold = z.infer<typeof SignatureTold>

/** How a document stands that is signed: the signatures that stand, the names of the turns that are still to sign, and whether what it tells of was answered otherwise since. */
export const Signing = z.object({
  signed: z.array(SignatureTold),
  waiting: z.array(z.string()),
  isOutdated: z.boolean(),
})
export type Signing = z.infer<typeof Signing>

/** A document that a response has, or can have made: `isMeant` by its condition as the answers are now; `signing` null where it is not signed. */
export const ResponseDocument = z.object({
  /** How PDF files of it are made here. */
  pdf: z.enum(['exact', 'plain']),
  code: z.string(),
  title: z.string(),
  isMeant: z.boolean(),
  signing: Signing.nullable(),
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

const Said = z.string().trim().max(LIMITS.signature)
/** A signature as it is given with a sending. `basis`: which state of the document was read; `drawn`: as in answers to questions of signatures, else the name stands for it. */
export const SignatureGiven = z.strictObject({
  code: z.string().max(LIMITS.code),
  basis: z.string().max(100),
  name: Said.min(1, 'a signature has a name'),
  role: Said,
  place: Said,
  drawn: z.string().refine(isDrawing, 'a drawing is a path').optional(),
})
export type SignatureGiven = z.infer<typeof SignatureGiven>

/** What a document says, its pictures in base64 (RFC 4648), as JSON: to be read before it is signed. */
export const DocumentToSign = z.object({
  code: z.string(),
  title: z.string(),
  basis: z.string(),
  content: z.string(),
  signed: z.array(SignatureTold),
})
export type DocumentToSign = z.infer<typeof DocumentToSign>
export const DocumentsToSign = z.object({ documents: z.array(DocumentToSign) })

/** The SHA-256 of a file (FIPS 180-4), in hexadecimal digits. */
export const FileHash = z.strictObject({ hash: z.string().regex(/^[\da-f]{64}$/) })
/** What is known of a file that was given out of a signed document, as it stood then. */
export const SealedFile = z.object({
  known: z
    .object({
      title: z.string(),
      form: z.string(),
      number: z.int(),
      madeAt: z.string(),
      signed: z.array(SignatureTold),
    })
    .nullable(),
})
export type SealedFile = z.infer<typeof SealedFile>
