import { createHash } from 'node:crypto'
import { and, asc, desc, eq } from 'drizzle-orm'
import type { Filled } from '../../../core/fill/frame'
import type { Answers } from '../../../core/form/answers'
import type { FormDocument } from '../../../core/form/documents'
import { tagsOf } from '../../../core/documents/templateTags'
import { deliveredText, holds, runOfDocument } from '../../../core/parties/deliveries'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { deliveryRuns, documents, releases, responses } from '../../store/schema'
import type { TemplateToFill } from '../../threads/documents'
import { runTask } from '../../threads/run'
import { fillFor, type Happened } from '../deliveries/queue'
import { filesOf, picturesAmong, type HeldFile, type Picture } from '../filesOfResponses'
import { keepEvent } from '../responseEvents'
import { documentPdf, pdfName } from './pdf'
import { DOCX_TYPE, findTemplate } from './templates'

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
    if (document.on === 'signed')
      return refuse(
        409,
        'signed-only',
        'This document is made when it is signed, and stays as it was signed.',
      )
    const filled = await fillFor(tx, found)
    if (!holds(filled, document))
      return refuse(409, 'not-meant', 'By its condition, this document is not made of this response.')
    await makeDocument(tx, found, { filled, document, who })
  })
}

/** What is made into a document. `told`: a digest of the answers of which it tells, where it is signed. */
interface Making {
  filled: Filled
  document: FormDocument
  who: string
  told?: string
}

/** Makes a document and keeps it with its response: a further version, unless it would be the same as the last. */
export async function makeDocument(
  db: Database,
  { response }: Pick<Happened, 'response'>,
  { filled, document, who, told }: Making,
): Promise<{ id: string; name: string }> {
  // Whoever makes one of the same response at the same time waits here, and finds it made.
  await db.select({ id: responses.id }).from(responses).where(eq(responses.id, response.id)).for('update')
  const pictures = await picturesQuoted(await filesOf(db, [response.id]), document)
  const content = await fillDocument(db, { ...response, filled, document, pictures })
  const digest = createHash('sha256').update(content).digest('base64url')
  const before = await db
    .select({
      id: documents.id,
      name: documents.name,
      version: documents.version,
      digest: documents.digest,
    })
    .from(documents)
    .where(and(eq(documents.responseId, response.id), eq(documents.code, document.code)))
    .orderBy(asc(documents.version))
  const last = before.at(-1)
  if (last?.digest === digest) return last
  const version = (last?.version ?? 0) + 1
  const name = nameOf(filled, document, version)
  const [row] = await db
    .insert(documents)
    .values({
      ...{ responseId: response.id, code: document.code, version, name, digest, content },
      bytes: content.length,
      ...(told === undefined ? {} : { unsigned: content, told }),
    })
    .returning({ id: documents.id, name: documents.name })
  if (!row) throw new Error('A document that was stored did not come back.')
  await keepEvent(db, {
    responseId: response.id,
    kind: 'document made',
    turn: '',
    who,
    // Not the file’s name: it may quote what is personal.
    details: { remark: document.title || document.code },
  })
  return row
}

/** What is filled: a document of a form, with answers that are stored, or may be. */
interface ToFill {
  answers: Answers
  begunOn: string
  filled: Filled
  document: FormDocument
  pictures: readonly Picture[]
}

/** A document as it is, or would be, of some answers; refused where it can’t be made. */
export async function fillDocument(
  db: Database,
  { answers, begunOn, filled, document, pictures }: ToFill,
): Promise<Uint8Array> {
  const template = await templateOf(db, document)
  const made = await runTask('fillTemplate', {
    ...{ form: filled.plan.form, answers, begunOn, standing: filled.standing, template },
    ...{ tags: tagsOf(document.template), files: pictures },
  })
  return made.refused === null ? made.bytes : refuse(422, 'not-made', made.refused)
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

/** The pictures among some files that a document quotes: as many as a document holds. */
export async function picturesQuoted(
  held: readonly HeldFile[],
  { template }: FormDocument,
): Promise<Picture[]> {
  const quoted = new Set(tagsOf(template).flatMap(tag => (tag.is === 'quote' ? [tag.source] : [])))
  return picturesAmong(held.filter(file => quoted.has(file.question)))
}

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
