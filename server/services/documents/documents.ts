import { createHash } from 'node:crypto'
import { and, asc, desc, eq } from 'drizzle-orm'
import type { Filled } from '../../../core/fill/frame'
import type { FormDocument } from '../../../core/form/documents'
import { tagsOf } from '../../../core/documents/templateTags'
import { deliveredText, holds, runOfDocument } from '../../../core/parties/deliveries'
import type { ResponseDocument } from '../../../shared/api/documents'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { deliveryRuns, documents, releases, responses } from '../../store/schema'
import type { TemplateToFill } from '../../threads/documents'
import { runTask } from '../../threads/run'
import { fillFor, type Happened } from '../deliveries/queue'
import { bytesOf, filesOf } from '../filesOfResponses'
import { keepEvent } from '../responseEvents'
import { documentPdf, pdfKind, pdfName } from './pdf'
import { DOCX_TYPE, findTemplate } from './templates'

/** The documents that a response has, or can have made. */
export async function listDocuments(
  db: Database,
  filled: Filled,
  responseId: string,
): Promise<ResponseDocument[]> {
  const meant = filled.plan.form.documents ?? []
  if (meant.length === 0) return []
  const rows = await db
    .select({
      id: documents.id,
      code: documents.code,
      name: documents.name,
      version: documents.version,
      madeAt: documents.madeAt,
      bytes: documents.bytes,
    })
    .from(documents)
    .where(eq(documents.responseId, responseId))
    .orderBy(asc(documents.version))
  const pdf = await pdfKind()
  return meant.map(document => ({
    pdf,
    code: document.code,
    title: document.title || document.code,
    isMeant: holds(filled, document),
    made: rows
      .filter(row => row.code === document.code)
      .map(({ id, name, version, bytes, madeAt }) => ({
        id,
        name,
        version,
        bytes,
        at: madeAt.toISOString(),
      })),
  }))
}

/** Has a document of a response made as it is now. Refused where the response no longer stands, or the document is not meant for it. */
export async function makeByHand(db: Database, responseId: string, code: string, who: string): Promise<void> {
  await db.transaction(async tx => {
    const [found] = await tx
      .select({ response: responses, release: releases })
      .from(responses)
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(eq(responses.id, responseId))
      .for('update', { of: responses })
    if (!found) return refuse(404, 'not-found', 'There is no such response.')
    if (found.response.binnedAt !== null || found.response.withdrawnAt !== null)
      return refuse(409, 'not-standing', 'This response no longer stands; no document is made of it.')
    const document = (found.release.definition.documents ?? []).find(d => d.code === code)
    if (!document) return refuse(404, 'not-found', 'There is no such document in this version of the form.')
    const filled = await fillFor(tx, found)
    if (!holds(filled, document))
      return refuse(409, 'not-meant', 'By its condition, this document is not made of this response.')
    await makeDocument(tx, found, { filled, document, who })
  })
}

/** Makes a document and keeps it with its response: a further version, unless it would be the same as the last. @returns its name */
export async function makeDocument(
  db: Database,
  { response }: Pick<Happened, 'response'>,
  { filled, document, who }: { filled: Filled; document: FormDocument; who: string },
): Promise<string> {
  // Whoever makes one of the same response at the same time waits here, and finds it made.
  await db.select({ id: responses.id }).from(responses).where(eq(responses.id, response.id)).for('update')
  const template = await templateOf(db, document)
  const made = await runTask('fillTemplate', {
    form: filled.plan.form,
    answers: response.answers,
    begunOn: response.begunOn,
    standing: filled.standing,
    template,
    tags: tagsOf(document.template),
    files: await picturesQuoted(db, response.id, document),
  })
  if (made.refused !== null) return refuse(422, 'not-made', made.refused)
  const digest = createHash('sha256').update(made.bytes).digest('base64url')
  const before = await db
    .select({ name: documents.name, version: documents.version, digest: documents.digest })
    .from(documents)
    .where(and(eq(documents.responseId, response.id), eq(documents.code, document.code)))
    .orderBy(asc(documents.version))
  const last = before.at(-1)
  if (last?.digest === digest) return last.name
  const version = (last?.version ?? 0) + 1
  const name = nameOf(filled, document, version)
  await db.insert(documents).values({
    ...{ responseId: response.id, code: document.code, version, name, digest },
    content: made.bytes,
    bytes: made.bytes.length,
  })
  await keepEvent(db, {
    responseId: response.id,
    kind: 'document made',
    turn: '',
    who,
    // Not the file’s name: it may quote what is personal.
    details: { remark: document.title || document.code },
  })
  return name
}

/** What a document is made from: the file that was brought in, or what was written. */
async function templateOf(db: Database, { template }: FormDocument): Promise<TemplateToFill['template']> {
  if ('written' in template) return template
  const kept = await findTemplate(db, template.file)
  return kept?.content ?? refuse(422, 'not-made', 'Its template is not kept here any more.')
}

/** The documents of a response whose moment has come, each as it was made last; what waits to be made is made now, so that a message that goes out takes it along. */
export async function documentsDue(
  db: Database,
  { response, filled }: Pick<Happened, 'response'> & { filled: Filled },
): Promise<{ id: string; name: string }[]> {
  const runs = await db
    .select({ delivery: deliveryRuns.delivery })
    .from(deliveryRuns)
    .where(and(eq(deliveryRuns.responseId, response.id), eq(deliveryRuns.state, 'waiting')))
  const waiting = new Set(runs.map(run => run.delivery))
  const all = filled.plan.form.documents ?? []
  for (const document of all)
    if (waiting.has(runOfDocument(document)) && holds(filled, document))
      await makeDocument(db, { response }, { filled, document, who: '' })
  const made = await db
    .select({ id: documents.id, name: documents.name, code: documents.code })
    .from(documents)
    .where(eq(documents.responseId, response.id))
    .orderBy(desc(documents.version))
  return all.flatMap(({ code }) => made.find(d => d.code === code) ?? [])
}

/** The pictures that a document quotes: as many as a document holds. */
async function picturesQuoted(
  db: Database,
  responseId: string,
  { template }: FormDocument,
): Promise<{ id: string; bytes: Uint8Array }[]> {
  const quoted = new Set(tagsOf(template).flatMap(tag => (tag.is === 'quote' ? [tag.source] : [])))
  if (quoted.size === 0) return []
  const found: { id: string; bytes: Uint8Array }[] = []
  let left = MOST_BYTES
  for (const file of await filesOf(db, [responseId])) {
    if (!quoted.has(file.question) || !PICTURE.test(file.name) || file.size > left) continue
    found.push({ id: file.id, bytes: await bytesOf(file) })
    left -= file.size
  }
  return found
}
const PICTURE = /\.(?:png|jpe?g)$/i
const MOST_BYTES = 30_000_000

/** What a file is called: its pattern as it reads for the response, without what no file system takes. */
function nameOf(filled: Filled, { fileName, code }: FormDocument, version: number): string {
  const said = deliveredText(filled, fileName)
    .replaceAll(/[\\/:*?"<>|\p{Cc}\s]+/gu, ' ')
    .trim()
    .slice(0, LONGEST)
  const further = version > 1 ? ` (${version})` : ''
  return `${said || code}${further}.docx`
}
const LONGEST = 150

/** A document of a response as it was made, or as a PDF file. */
export async function loadDocument(
  db: Database,
  responseId: string,
  { document: id, as }: { document: string; as: 'docx' | 'pdf' },
): Promise<{ code: string; name: string; mediaType: string; content: Uint8Array }> {
  const [row] = await db
    .select({ code: documents.code, name: documents.name, content: documents.content })
    .from(documents)
    .where(and(eq(documents.id, id), eq(documents.responseId, responseId)))
  if (!row) return refuse(404, 'not-found', 'There is no such document.')
  if (as === 'docx') return { ...row, mediaType: DOCX_TYPE }
  const content = await documentPdf(db, id)
  if (!content) return refuse(404, 'not-found', 'There is no such document.')
  return { ...row, name: pdfName(row.name), content, mediaType: 'application/pdf' }
}
