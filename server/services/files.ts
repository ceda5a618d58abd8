import { randomUUID } from 'node:crypto'
import { and, count, eq, inArray, isNull, lt, notExists, sql, sum } from 'drizzle-orm'
import { framesOf } from '../../core/fill/draw'
import { fill, type Filled } from '../../core/fill/fill'
import { DEFAULT_MEGABYTES, isFile } from '../../core/fill/readers'
import { isRecord, type Answer } from '../../core/form/answers'
import type { QuestionOf } from '../../core/form/questions'
import type { Plan } from '../../core/fill/planned'
import type { Turn } from '../../core/form/turns'
import { redactForParty } from '../../core/parties/redact'
import { filledBy } from '../../core/parties/turns'
import { deleteFiles, dropFile, keepFile, readFile, sweepFiles, type IncomingFile } from '../store/fileFolder'
import type { Database } from '../store/database'
import { files, keptAnswers, releases, turns } from '../store/schema'
import { refuse } from '../http/refuse'
import { readMediaType } from './fileKinds'
import { isOpen } from './keepTurn'
import { resolveLink, type LinkTarget, type LinkUse } from './links'

const MEGABYTE = 1_000_000
/** How many files one sending may have waiting, and for how many days unclaimed ones are kept. */
const MOST_WAITING = 100
const DAYS_WAITING = 2
/** Bytes of files that nobody has sent yet: to one release, and in all. */
const MOST_UNSENT_BY_LINK = 1_000 * MEGABYTE
const MOST_UNSENT = 4_000 * MEGABYTE

/** Takes a file for a question of a form as it comes; what it is is told by its content, not by its name. `receive`: reads at most so many bytes. */
export async function takeFile(
  db: Database,
  use: LinkUse,
  { question, key, name }: { question: string; key: string; name: string },
  receive: (most: number) => Promise<IncomingFile>,
): Promise<{ file: string; name: string; bytes: number }> {
  const { release, plan, turn, row } = await resolveLink(db, use)
  if (row?.handedOffAt) refuse(409, 'handed-off', 'This turn has been handed off already.')
  const node = fileQuestion(plan, turn, question)
  await refuseTooMany(db, release.id, key)
  const most = (node.megabytes ?? DEFAULT_MEGABYTES) * MEGABYTE
  const incoming = await receive(most)
  try {
    if (incoming.bytes === 0) refuse(422, 'file-empty', `“${name}” is empty.`)
    const mediaType = await readMediaType(incoming.path, node, name)
    const file = randomUUID()
    await keepFile(incoming, file)
    await db.insert(files).values({
      id: file,
      releaseId: release.id,
      sendingKey: key,
      question,
      name,
      mediaType,
      size: incoming.bytes,
    })
    return { file, name, bytes: incoming.bytes }
  } finally {
    await dropFile(incoming)
  }
}

/** The question that asks for a file in this turn. */
function fileQuestion(plan: Plan, turn: Turn | null, code: string): QuestionOf<'file'> {
  const place = plan.byCode.get(code)?.place
  const isAsked = filledBy(plan, turn).has(place?.entryOf?.code ?? code)
  return isAsked && place?.node.type === 'file'
    ? place.node
    : refuse(422, 'no-file-question', 'This form does not ask for a file here.')
}

/** Clears files that nobody sent for some days, but for those of a turn that is kept until it goes on, and those whose response is gone. */
export async function sweepUnclaimed(db: Database): Promise<void> {
  const since = new Date(Date.now() - DAYS_WAITING * 86_400_000)
  const gone = await db
    .delete(files)
    .where(
      and(
        isNull(files.responseId),
        lt(files.at, since),
        notExists(draftOfFile(db)),
        notExists(keptOfFile(db)),
      ),
    )
    .returning({ id: files.id })
  await deleteFiles(gone.map(f => f.id))
  await sweepFiles(async ids => {
    const known =
      ids.length === 0
        ? []
        : await db
            .select({ id: files.id })
            .from(files)
            .where(inArray(files.id, [...ids]))
    return new Set(known.map(f => f.id))
  })
}

/** The turns in which a file was given, and what was typed is kept. */
const draftOfFile = (db: Database) =>
  db.select({ id: turns.id }).from(turns).where(eq(turns.draftKey, files.sendingKey))

/** What somebody has asked to have kept, with the file. */
const keptOfFile = (db: Database) =>
  db
    .select({ id: keptAnswers.id })
    .from(keptAnswers)
    .where(and(eq(keptAnswers.releaseId, files.releaseId), eq(keptAnswers.sendingKey, files.sendingKey)))

async function refuseTooMany(db: Database, releaseId: string, key: string) {
  const [waiting] = await db
    .select({ number: count() })
    .from(files)
    .where(and(eq(files.releaseId, releaseId), eq(files.sendingKey, key)))
  if (Number(waiting?.number ?? 0) >= MOST_WAITING)
    refuse(429, 'too-many-files', `At most ${MOST_WAITING} files can be given at once.`)
  const [unsent] = await db
    .select({
      all: sum(files.size),
      here: sql`sum(${files.size}) filter (where ${files.releaseId} = ${releaseId})`,
    })
    .from(files)
    .where(isNull(files.responseId))
  const isFull = Number(unsent?.here ?? 0) > MOST_UNSENT_BY_LINK || Number(unsent?.all ?? 0) > MOST_UNSENT
  if (isFull)
    refuse(
      429,
      'too-many-files',
      'Too many files wait here to be sent. Try again later, or send without this one.',
    )
}

/** A file that a response holds: its id, and the question that it answers. */
interface GivenFile {
  id: string
  question: string
}

/** The files that a response holds, in entries too. */
export function filesIn(filled: Filled): GivenFile[] {
  return filled.plan.questions
    .filter(q => q.place.node.type === 'file')
    .flatMap(q =>
      framesOf(filled, q).flatMap(frame =>
        [frame.given.get(q.slot) ?? []]
          .flat()
          .flatMap(f => (isFile(f) ? [{ id: f.file, question: q.place.code }] : [])),
      ),
    )
}

const UUID = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/

/** Binds files to the response that sends them, each once; ones that were not given for it, or for another question, refuse the whole. */
export async function claimFiles(
  db: Database,
  releaseId: string,
  key: string,
  responseId: string,
  given: readonly GivenFile[],
): Promise<void> {
  if (given.length === 0) return
  const ids = given.map(f => f.id)
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
    .returning({ id: files.id, question: files.question })
  const isOther = given.some(g => !claimed.some(c => c.id === g.id && c.question === g.question))
  if (isOther || claimed.length < ids.length)
    refuse(
      422,
      'unknown-file',
      'A file of this response is no longer kept, or was given for something else. Give it again; nothing was stored.',
    )
}

/**
 * A file that the party of a link reads, with the code of its turn: of the response that the link is about, and only of an answer that it sees in
 * its turn; or one that it has given in its turn so far.
 */
export async function loadFileOfLink(db: Database, use: LinkUse, id: string) {
  const target = await resolveLink(db, use)
  const { plan, turn, response } = target
  if (!response) return refuseUnseen()
  if (!turn) return loadOwnFile(db, response.id, id)
  const kept = await findKeptFile(db, target, id)
  if (kept) return { ...kept, responseId: response.id, turn: turn.code }
  const seen = redactForParty(fill(plan, response.answers, response.begunOn), turn, response.answers)
  const isSeen = Object.values(seen.answers).some(answer => holdsFile(answer, id))
  const file = isSeen ? await loadFile(db, id) : refuseUnseen()
  return file.responseId === response.id ? { ...file, turn: turn.code } : refuseUnseen()
}

/** A file of a response that is opened by its own link. */
async function loadOwnFile(db: Database, responseId: string, id: string) {
  const file = await loadFile(db, id)
  return file.responseId === responseId ? { ...file, turn: '' } : refuseUnseen()
}

/** A file that was given in a turn that is kept until it goes on; null for any other. */
async function findKeptFile(db: Database, target: LinkTarget, id: string) {
  const { row, release } = target
  const isKept = row !== null && isOpen(target) && Object.values(row.draft ?? {}).some(a => holdsFile(a, id))
  if (!isKept || row.draftKey === null) return null
  const [file] = await db
    .select()
    .from(files)
    .where(and(eq(files.id, id), eq(files.releaseId, release.id), eq(files.sendingKey, row.draftKey)))
  return file ? { ...file, formId: release.formId, content: file.content ?? readFile(file.id) } : null
}

const refuseUnseen = () => refuse(404, 'not-found', 'There is no such file among what you see in this turn.')

/** Whether an answer, or one inside an entry of it, is a file. */
function holdsFile(answer: Answer, id: string): boolean {
  if (isFile(answer)) return answer.file === id
  if (isRecord(answer)) return Object.values(answer).some(inner => holdsFile(inner, id))
  return Array.isArray(answer) && answer.some(inner => holdsFile(inner, id))
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
    ? { ...row.file, formId: row.formId, responseId, content: row.file.content ?? readFile(row.file.id) }
    : refuse(404, 'not-found', 'There is no such file.')
}
