import { createReadStream } from 'node:fs'
import { fileTypeFromFile } from 'file-type'
import { FILE_KINDS, type QuestionOf } from '../../core/form/questions'
import { refuse } from '../http/refuse'

type Kind = (typeof FILE_KINDS)[number]
const KIND_WORDS: Record<Kind, string> = {
  image: 'an image (JPEG, PNG, GIF, WebP)',
  pdf: 'a PDF',
  document: 'a document (DOCX, ODT, RTF)',
  spreadsheet: 'a spreadsheet (XLSX, ODS)',
  text: 'a plain text or CSV file',
}
const KIND_OF: Readonly<Record<string, Kind>> = {
  jpg: 'image',
  png: 'image',
  gif: 'image',
  webp: 'image',
  pdf: 'pdf',
  docx: 'document',
  odt: 'document',
  rtf: 'document',
  xlsx: 'spreadsheet',
  ods: 'spreadsheet',
}

/** The media type of a file, by its content; refused where it is none that the question takes. `name`: what its giver calls it. */
export async function readMediaType(
  path: string,
  { kinds }: QuestionOf<'file'>,
  name: string,
): Promise<string> {
  const found = await fileTypeFromFile(path)
  const kind = found ? KIND_OF[found.ext] : await textKind(path)
  const allowed: readonly Kind[] = kinds ?? FILE_KINDS
  if (kind === undefined || !allowed.includes(kind)) {
    const wanted = allowed.map(k => KIND_WORDS[k]).join(' or ')
    refuse(422, 'wrong-kind', `“${name}” is ${kindWords(kind, found?.ext)}; ${wanted} is taken here.`)
  }
  return found?.mime ?? 'text/plain; charset=utf-8'
}

const textKind = async (path: string): Promise<Kind | undefined> =>
  (await isText(path)) ? 'text' : undefined

function kindWords(kind: Kind | undefined, extension: string | undefined): string {
  if (kind) return KIND_WORDS[kind]
  return extension === undefined ? 'of no kind that is known' : `a file of another kind (${extension})`
}

/** UTF-8 without control characters, as plain texts and CSV files are. */
async function isText(path: string): Promise<boolean> {
  const decoder = new TextDecoder('utf-8', { fatal: true })
  try {
    for await (const piece of createReadStream(path)) {
      const bytes = Buffer.from(piece)
      if (bytes.some(byte => byte < 9 || (byte > 13 && byte < 32))) return false
      decoder.decode(bytes, { stream: true })
    }
    decoder.decode()
    return true
  } catch (error) {
    if (error instanceof TypeError) return false // not UTF-8
    throw error
  }
}
