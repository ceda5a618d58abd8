import { fileTypeFromBuffer } from 'file-type'
import { and, count, eq, inArray, isNull, lt } from 'drizzle-orm'
import { framesOf } from '../../core/fill/draw'
import type { Filled } from '../../core/fill/fill'
import { DEFAULT_MEGABYTES, isFile } from '../../core/fill/readers'
import { readableBytes } from '../../core/fill/describeValue'
import { FILE_KINDS, type QuestionOf } from '../../core/form/questions'
import { filledBy } from '../../core/parties/turns'
import type { Database } from '../store/database'
import { files } from '../store/schema'
import { refuse } from '../http/route'
import { openingBy } from './openings'

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
const MEGABYTE = 1_000_000
/** How many files one sending may have waiting, and for how many days unclaimed ones are kept. */
const MOST_WAITING = 100
const DAYS_WAITING = 7

/** Takes a file for a question of a form; what it is is told by its content, not by its name. */
export async function takeFile(
  db: Database,
  token: string,
  given: { question: string; key: string; name: string },
  content: Uint8Array,
): Promise<{ file: string; name: string; bytes: number }> {
  const { release, plan, turn, row: taken } = await openingBy(db, token)
  if (taken?.handedOffAt) refuse(409, 'handed-off', 'This turn has been handed off already.')
  const node = filledBy(plan, turn).has(
    plan.byCode.get(given.question)?.place.entryOf?.code ?? given.question,
  )
    ? plan.byCode.get(given.question)?.place.node
    : undefined
  if (node?.type !== 'file') return refuse(422, 'no-file-question', 'This form does not ask for a file here.')
  const most = (node.megabytes ?? DEFAULT_MEGABYTES) * MEGABYTE
  if (content.length > most)
    refuse(
      413,
      'file-too-large',
      `“${given.name}” has ${readableBytes(content.length)}; at most ${readableBytes(most)} are taken.`,
    )
  if (content.length === 0) refuse(422, 'file-empty', `“${given.name}” is empty.`)
  const mediaType = await mediaTypeOf(content, node, given.name)
  await db
    .delete(files)
    .where(and(isNull(files.responseId), lt(files.at, new Date(Date.now() - DAYS_WAITING * 86_400_000))))
  const [waiting] = await db
    .select({ number: count() })
    .from(files)
    .where(and(eq(files.releaseId, release.id), eq(files.sendingKey, given.key)))
  if (Number(waiting?.number ?? 0) >= MOST_WAITING)
    refuse(429, 'too-many-files', `At most ${MOST_WAITING} files can be given at once.`)
  const [row] = await db
    .insert(files)
    .values({
      releaseId: release.id,
      sendingKey: given.key,
      question: given.question,
      name: given.name,
      mediaType,
      size: content.length,
      content,
    })
    .returning({ id: files.id })
  return row
    ? { file: row.id, name: given.name, bytes: content.length }
    : refuse(500, 'not-stored', 'The file could not be stored.')
}

async function mediaTypeOf(
  content: Uint8Array,
  { kinds }: QuestionOf<'file'>,
  name: string,
): Promise<string> {
  const found = await fileTypeFromBuffer(content)
  const kind = found ? KIND_OF[found.ext] : isText(content) ? 'text' : undefined
  const allowed: readonly Kind[] = kinds ?? FILE_KINDS
  if (kind === undefined || !allowed.includes(kind)) {
    refuse(
      422,
      'wrong-kind',
      `“${name}” is ${kind ? KIND_WORDS[kind] : found ? `a file of another kind (${found.ext})` : 'of no kind that is known'}; ${allowed.map(k => KIND_WORDS[k]).join(' or ')} is taken here.`,
    )
  }
  return found?.mime ?? 'text/plain; charset=utf-8'
}

/** UTF-8 without control characters, as plain texts and CSV files are. */
function isText(content: Uint8Array): boolean {
  if (content.some(byte => byte < 9 || (byte > 13 && byte < 32))) return false
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(content)
    return true
  } catch {
    return false // not UTF-8
  }
}

/** The ids of the files that a response holds, in entries too. */
export function filesIn(filled: Filled): string[] {
  return filled.plan.questions
    .filter(q => q.place.node.type === 'file')
    .flatMap(q =>
      framesOf(filled, q).flatMap(frame =>
        [frame.given.get(q.slot) ?? []].flat().flatMap(f => (isFile(f) ? [f.file] : [])),
      ),
    )
}

const UUID = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/

/** Binds files to the response that sends them; ones that were not given for it refuse the whole. */
export async function claimFiles(
  db: Database,
  releaseId: string,
  key: string,
  responseId: string,
  ids: readonly string[],
): Promise<void> {
  if (ids.length === 0) return
  if (!ids.every(id => UUID.test(id)))
    refuse(422, 'unknown-file', 'A file of this response is not known; nothing was stored.')
  const claimed = await db
    .update(files)
    .set({ responseId })
    .where(
      and(
        eq(files.releaseId, releaseId),
        eq(files.sendingKey, key),
        isNull(files.responseId),
        inArray(files.id, [...ids]),
      ),
    )
    .returning({ id: files.id })
  if (claimed.length < new Set(ids).size)
    refuse(
      422,
      'unknown-file',
      'A file of this response is no longer kept. Give it again; nothing was stored.',
    )
}

/** A file with its content, for whoever may see the responses. */
export async function fileById(db: Database, id: string) {
  const [row] = await db.select().from(files).where(eq(files.id, id))
  return row ?? refuse(404, 'not-found', 'There is no such file.')
}
