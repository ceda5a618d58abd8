import { fileTypeFromBuffer } from 'file-type'
import { and, count, eq, inArray, isNull, lt } from 'drizzle-orm'
import { framesOf } from '../../core/fill/draw'
import type { Filled } from '../../core/fill/fill'
import { DEFAULT_MEGABYTES, isFile } from '../../core/fill/readers'
import { readableBytes } from '../../core/fill/describeValue'
import { FILE_KINDS, type QuestionOf } from '../../core/form/questions'
import type { Plan } from '../../core/fill/planned'
import type { Turn } from '../../core/form/turns'
import { filledBy } from '../../core/parties/turns'
import type { Database } from '../store/database'
import { files, releases } from '../store/schema'
import { refuse } from '../http/refuse'
import { resolveLink } from './links'

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
  { question, key, name }: { question: string; key: string; name: string },
  content: Uint8Array,
): Promise<{ file: string; name: string; bytes: number }> {
  const { release, plan, turn, row } = await resolveLink(db, token)
  if (row?.handedOffAt) refuse(409, 'handed-off', 'This turn has been handed off already.')
  const node = fileQuestion(plan, turn, question)
  refuseWrongSize(content, node, name)
  const mediaType = await readMediaType(content, node, name)
  await clearUnclaimed(db)
  await refuseTooMany(db, release.id, key)
  const [stored] = await db
    .insert(files)
    .values({
      releaseId: release.id,
      sendingKey: key,
      question,
      name,
      mediaType,
      size: content.length,
      content,
    })
    .returning({ id: files.id })
  return stored
    ? { file: stored.id, name, bytes: content.length }
    : refuse(500, 'not-stored', 'The file could not be stored.')
}

/** The question that asks for a file in this turn. */
function fileQuestion(plan: Plan, turn: Turn | null, code: string): QuestionOf<'file'> {
  const place = plan.byCode.get(code)?.place
  const isAsked = filledBy(plan, turn).has(place?.entryOf?.code ?? code)
  return isAsked && place?.node.type === 'file'
    ? place.node
    : refuse(422, 'no-file-question', 'This form does not ask for a file here.')
}

function refuseWrongSize(content: Uint8Array, node: QuestionOf<'file'>, name: string) {
  const most = (node.megabytes ?? DEFAULT_MEGABYTES) * MEGABYTE
  if (content.length === 0) refuse(422, 'file-empty', `“${name}” is empty.`)
  if (content.length <= most) return
  const [size, limit] = [readableBytes(content.length), readableBytes(most)]
  refuse(413, 'file-too-large', `“${name}” has ${size}; at most ${limit} are taken.`)
}

/** Files that nobody sent are cleared after some days. */
async function clearUnclaimed(db: Database) {
  const since = new Date(Date.now() - DAYS_WAITING * 86_400_000)
  await db.delete(files).where(and(isNull(files.responseId), lt(files.at, since)))
}

async function refuseTooMany(db: Database, releaseId: string, key: string) {
  const [waiting] = await db
    .select({ number: count() })
    .from(files)
    .where(and(eq(files.releaseId, releaseId), eq(files.sendingKey, key)))
  if (Number(waiting?.number ?? 0) >= MOST_WAITING)
    refuse(429, 'too-many-files', `At most ${MOST_WAITING} files can be given at once.`)
}

async function readMediaType(
  content: Uint8Array,
  { kinds }: QuestionOf<'file'>,
  name: string,
): Promise<string> {
  const found = await fileTypeFromBuffer(content)
  const kind = found ? KIND_OF[found.ext] : textKind(content)
  const allowed: readonly Kind[] = kinds ?? FILE_KINDS
  if (kind === undefined || !allowed.includes(kind)) {
    const wanted = allowed.map(k => KIND_WORDS[k]).join(' or ')
    refuse(422, 'wrong-kind', `“${name}” is ${kindWords(kind, found?.ext)}; ${wanted} is taken here.`)
  }
  return found?.mime ?? 'text/plain; charset=utf-8'
}

const textKind = (content: Uint8Array): Kind | undefined => (isText(content) ? 'text' : undefined)

function kindWords(kind: Kind | undefined, extension: string | undefined): string {
  if (kind) return KIND_WORDS[kind]
  return extension === undefined ? 'of no kind that is known' : `a file of another kind (${extension})`
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

/** A file of a response that was sent, with its content, its form and its response. */
export async function loadFile(db: Database, id: string) {
  const [row] = await db
    .select({ file: files, formId: releases.formId })
    .from(files)
    .innerJoin(releases, eq(files.releaseId, releases.id))
    .where(eq(files.id, id))
  const responseId = row?.file.responseId
  return row && responseId
    ? { ...row.file, formId: row.formId, responseId }
    : refuse(404, 'not-found', 'There is no such file.')
}
