import { and, asc, eq, lte } from 'drizzle-orm'
import { letterHtml, withoutLinks, withWholeLinks } from '../../../core/formats/letterHtml'
import { describeFilled } from '../../../core/fill/describeResponse'
import { fillFor } from '../deliveries/queue'
import type { Database } from '../../store/database'
import { files, messages, releases, responses } from '../../store/schema'
import { describeForLog } from '../../store/storeErrors'
import type { Attachment } from '../../../shared/api/letters'
import { documentPdf } from '../documents/pdf'
import { bytesOf } from '../filesOfResponses'
import { MINUTE, PAUSES } from '../pauses'
import { runTask } from '../../threads/run'
import { postOffice, PostRefused, type PostOffice, type Posting } from './office'

type Row = typeof messages.$inferSelect

/** How long a letter is left to whoever posts it. */
const LEASE = 2 * MINUTE
const AT_ONCE = 50

/** Posts the letters that wait, whoever else does so at the same time: each is taken by the mail server at least once, under the same name. */
export async function postLetters(db: Database): Promise<void> {
  const office = postOffice()
  if (!office) return
  for (;;) {
    const due = await db
      .select({ id: messages.id })
      .from(messages)
      .where(and(eq(messages.state, 'waiting'), lte(messages.dueAt, new Date())))
      .orderBy(asc(messages.dueAt))
      .limit(AT_ONCE)
    for (const { id } of due) await postOne(db, office, id)
    if (due.length < AT_ONCE) return
  }
}

async function postOne(db: Database, office: PostOffice, id: string): Promise<void> {
  const row = await claim(db, id)
  if (!row) return
  try {
    await office.post(await postingOf(db, office, row))
    await settle(db, row, { state: 'sent', said: '' })
  } catch (error) {
    const isForGood = error instanceof PostRefused && error.isForGood
    // What a mail server says may name the address: it is for those who may see the letter.
    if (!(error instanceof PostRefused))
      console.error(`A letter could not be posted. ${describeForLog(error)}`)
    const said = error instanceof PostRefused ? error.message.slice(0, 300) : 'Tobbin could not post it.'
    await settle(db, row, { state: isForGood ? 'bounced' : 'waiting', said })
  }
}

/** A letter that is due, left to this process for a while; null where somebody else has it. */
const claim = (db: Database, id: string): Promise<Row | null> =>
  db.transaction(async tx => {
    const [row] = await tx
      .select()
      .from(messages)
      .where(and(eq(messages.id, id), eq(messages.state, 'waiting'), lte(messages.dueAt, new Date())))
      .for('update', { skipLocked: true })
    if (!row) return null
    const dueAt = new Date(Date.now() + LEASE)
    await tx.update(messages).set({ dueAt }).where(eq(messages.id, id))
    return row
  })

async function settle(db: Database, row: Row, { state, said }: Pick<Row, 'state' | 'said'>): Promise<void> {
  const pause = PAUSES[row.tries]
  const isOver = state === 'waiting' && pause === undefined
  const isLeft = state === 'waiting' && !isOver
  await db
    .update(messages)
    .set({
      said,
      state: isOver ? 'given up' : state,
      tries: row.tries + 1,
      // Who reads the store later opens nothing with it.
      ...(isLeft ? {} : { text: withoutLinks(row.text) }),
      dueAt: new Date(Date.now() + (pause ?? 0) * MINUTE),
    })
    .where(eq(messages.id, row.id))
}

async function postingOf(db: Database, { site }: PostOffice, row: Row): Promise<Posting> {
  const { id, to, subject, text } = row
  const attachments: Posting['attachments'] = []
  for (const { name, file, document } of row.attachments) {
    const content = await attachedContent(db, row.responseId, { file, document })
    if (content) attachments.push({ filename: name, content })
  }
  return { id, to, subject, text: withWholeLinks(text, site), html: letterHtml(text, site), attachments }
}

/** What goes with a letter; null where it is gone. */
async function attachedContent(
  db: Database,
  responseId: string | null,
  { file, document }: Pick<Attachment, 'file' | 'document'>,
): Promise<Uint8Array | null> {
  if (document !== undefined) return documentPdf(db, document)
  return file === null ? copyOf(db, responseId) : contentOf(db, file)
}

/** The answers of a response as a PDF file; null where it is gone. */
async function copyOf(db: Database, responseId: string | null): Promise<Uint8Array | null> {
  const [found] = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(responses.id, responseId ?? NOBODY))
  if (!found) return null
  const filled = await fillFor(db, found)
  const lines = describeFilled(filled).filter(line => line.state !== 'unasked' && line.type !== 'hidden')
  const about = `Response ${found.response.number}, sent ${found.response.sentAt.toISOString().slice(0, 10)}`
  // A letter stays small: files go along on their own where that is asked for.
  const copies = [{ title: found.release.definition.title, about, lines }]
  return runTask('makePdf', { copies, pictures: [] })
}
const NOBODY = '00000000-0000-4000-8000-000000000000'

async function contentOf(db: Database, id: string): Promise<Uint8Array | null> {
  const [file] = await db.select({ content: files.content }).from(files).where(eq(files.id, id))
  if (!file) return null
  return bytesOf({ id, ...file })
}
