import { and, desc, eq } from 'drizzle-orm'
import type { FormDocument } from '../../../core/form/documents'
import { holds } from '../../../core/parties/deliveries'
import type { DocumentOffered } from '../../../shared/api/documents'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { documents } from '../../store/schema'
import { fillFor, type Happened } from '../deliveries/queue'
import { findSent } from '../findSent'
import { resolveLink, type LinkUse } from '../links'
import { countTry } from '../people/tallies'
import { makeDocument } from './documents'
import { documentsBegun, offeredTo } from './offered'
import { documentPdf, pdfName } from './pdf'

/** A document that is offered to whoever has sent a response, as a PDF file; made now, where it was about to be. */
export async function fetchOffered(
  db: Database,
  use: LinkUse,
  { key, code }: { key: string; code: string },
): Promise<DocumentOffered> {
  const target = await resolveLink(db, use, { for: 'sending' })
  const { release, turn, row } = target
  const isSent = row === null || row.handedOffAt !== null
  const response = isSent ? (target.response ?? (await findSent(db, release.id, key))) : null
  if (!response) return refuse(404, 'not-found', 'There is no such response; it may not have been sent yet.')
  if (response.withdrawnAt !== null || response.binnedAt !== null)
    return refuse(410, 'withdrawn', 'This response was withdrawn.')
  const document = offeredTo(release, turn).find(d => d.code === code)
  if (!document) return refuse(404, 'not-found', 'There is no such document for you.')
  await countTry(db, 'documentByResponse', response.id)
  const last = (await lastOf(db, response.id, code)) ?? (await makeDue(db, { response, release }, document))
  const name = pdfName(last.name)
  const content = await documentPdf(db, last.id)
  if (!content) return refuse(404, 'not-found', 'This document is not there any more.')
  return { name, content: Buffer.from(content).toString('base64') }
}

async function lastOf(db: Database, responseId: string, code: string) {
  const [row] = await db
    .select({ id: documents.id, name: documents.name })
    .from(documents)
    .where(and(eq(documents.responseId, responseId), eq(documents.code, code)))
    .orderBy(desc(documents.version))
    .limit(1)
  return row ?? null
}

/** Makes a document that was about to be made anyway. */
async function makeDue(db: Database, happened: Happened, document: FormDocument) {
  const begun = await documentsBegun(db, happened.response.id, [document])
  const filled = await fillFor(db, happened)
  if (begun.length === 0 || !holds(filled, document))
    return refuse(404, 'not-found', 'This document is not made yet.')
  await db.transaction(tx => makeDocument(tx, happened, { filled, document, who: '' }))
  const made = await lastOf(db, happened.response.id, document.code)
  return made ?? refuse(404, 'not-found', 'This document is not made yet.')
}
