import { Resvg } from '@resvg/resvg-js'
import { fillDocx, TooLarge } from '../../core/documents/docx/fillDocx'
import { NotATemplate } from '../../core/documents/docx/openDocx'
import { prepareDocx } from '../../core/documents/docx/prepareDocx'
import { writeTags } from '../../core/documents/docx/writeTags'
import { writeDocx } from '../../core/documents/docx/writeDocx'
import { readContent } from '../../core/documents/docx/readContent'
import { readDocx, type DocxReading } from '../../core/documents/docx/readDocx'
import { DRAWN_ON, signatureSvg } from '../../core/fill/drawnSignature'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import type { DocumentTag } from '../../core/form/documents'
import type { WrittenDocument } from '../../core/form/written'
import type { Standing } from '../../core/form/standing'
import { addSeal, type Seal, type SealLine } from '../../core/documents/docx/addSeal'
import type { DocumentContent } from '../../core/documents/content'
import { drawnPicture } from '../../core/documents/pictures'
import { setDocument } from '../../core/paper/documentPaper'
import { writePdf } from './makePdf'

/** A template to be read against a form; `tags`: as the form has them, in place of those of the file. */
export interface TemplateToRead {
  form: Form
  bytes: Uint8Array
  tags?: readonly DocumentTag[]
}
/** A template to be filled from a response. */
export interface TemplateToFill {
  form: Form
  answers: Answers
  begunOn: string
  standing: Standing
  /** A file that was brought in, or what was written. */
  template: Uint8Array | { written: WrittenDocument }
  tags: readonly DocumentTag[]
  /** Pictures that are quoted, by the ids of their files. */
  files: readonly { id: string; bytes: Uint8Array }[]
}

/** Reads a template; `refused`: why the file is none, or not the one of these tags. */
export function readTemplate({ form, bytes, tags }: TemplateToRead): DocxReading & {
  refused: string | null
} {
  try {
    return { ...readDocx(bytes, planOf(form), tags), refused: null }
  } catch (error) {
    if (error instanceof NotATemplate) return { tags: [], problems: [], refused: error.message }
    throw error
  }
}

/** Fills a template; `refused`: why that can’t be. */
export async function fillTemplate(
  asked: TemplateToFill,
): Promise<{ bytes: Uint8Array; refused: string | null }> {
  const { form, answers, begunOn, standing, template, tags, files } = asked
  try {
    const filled = fill(planOf(form), answers, begunOn, standing)
    const kept = new Map(files.map(({ id, bytes }) => [id, bytes]))
    const pictures = { drawn: drawSignature, file: (id: string) => kept.get(id) ?? null }
    const file = template instanceof Uint8Array ? template : await writtenFile(template.written)
    return { bytes: fillDocx(prepareDocx(file, tags), filled, { pictures }), refused: null }
  } catch (error) {
    if (error instanceof TooLarge || error instanceof NotATemplate)
      return { bytes: new Uint8Array(), refused: error.message }
    throw error
  }
}

/** What was written lately, as files: the same is mostly filled for many responses. */
const WRITTEN = new Map<string, Uint8Array>()
const MOST_WRITTEN = 5

async function writtenFile(written: WrittenDocument): Promise<Uint8Array> {
  const key = JSON.stringify(written)
  const file = WRITTEN.get(key) ?? (await writeDocx(written))
  // Those that were used last stay.
  WRITTEN.delete(key)
  WRITTEN.set(key, file)
  const [oldest] = WRITTEN.keys()
  if (WRITTEN.size > MOST_WRITTEN && oldest !== undefined) WRITTEN.delete(oldest)
  return file
}

/** A signature as it was drawn, as a PNG that is three times as fine as it is printed. */
const drawSignature = (path: string): Uint8Array =>
  new Resvg(signatureSvg(path), { fitTo: { mode: 'width', value: DRAWN_ON.width } }).render().asPng()

/** A document as a PDF file that is set plainly: its text, tables and pictures. */
export async function setPdf({ bytes, title }: { bytes: Uint8Array; title: string }): Promise<Uint8Array> {
  return writePdf(setDocument(readContent(bytes), title))
}

/** A template with the tags that the form knows of it, in place of its own; null where they are others. */
export function renameTags({ bytes, tags }: { bytes: Uint8Array; tags: readonly DocumentTag[] }) {
  try {
    return writeTags(bytes, tags)
  } catch (error) {
    if (error instanceof NotATemplate) return null
    throw error
  }
}

/** What a document says. */
export const contentOf = ({ bytes }: { bytes: Uint8Array }): DocumentContent => readContent(bytes)

/** A document with what its last page is to tell; drawn signatures by their paths. */
export interface DocumentToSeal {
  bytes: Uint8Array
  seal: Omit<Seal, 'signed'> & { signed: readonly (Omit<SealLine, 'drawn'> & { drawn: string | null })[] }
}

/** Adds the page to a document that tells who signed it. */
export const sealDocument = ({ bytes, seal }: DocumentToSeal): Uint8Array =>
  addSeal(bytes, {
    ...seal,
    signed: seal.signed.map(line => ({
      ...line,
      drawn: line.drawn === null ? null : drawnPicture(drawSignature(line.drawn)),
    })),
  })
