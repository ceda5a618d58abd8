import { and, eq, inArray } from 'drizzle-orm'
import { findUnseen, isOffered } from '../../../core/documents/seenBy'
import { planOf } from '../../../core/fill/plan'
import type { FormDocument } from '../../../core/form/documents'
import type { Turn } from '../../../core/form/turns'
import { runOfDocument } from '../../../core/parties/deliveries'
import type { OfferedDocument } from '../../../shared/api/documents'
import type { Database } from '../../store/database'
import { deliveryRuns, documents, releases, responses } from '../../store/schema'
import type { Happened } from '../deliveries/queue'

/** The documents of a form that its turn is offered, and may have: none that tells what it never sees, whatever the form says. */
export function offeredTo({ definition }: Happened['release'], turn: Turn | null): FormDocument[] {
  const plan = planOf(definition)
  return (definition.documents ?? []).filter(d => isOffered(d, turn) && findUnseen(plan, d, turn) === null)
}

/** The documents that whoever has sent a response is offered: made already, or about to be. By the number of the response; `turn` is the one that they had. */
export async function documentsForSender(
  db: Database,
  { release, turn }: { release: Happened['release']; turn: Turn | null },
  number: number,
): Promise<OfferedDocument[]> {
  const offered = offeredTo(release, turn)
  if (offered.length === 0) return []
  const [found] = await db
    .select({ response: responses })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, release.formId), eq(responses.number, number)))
  if (!found) return []
  const due = await documentsBegun(db, found.response.id, offered)
  return due.map(d => ({ code: d.code, title: d.title || d.code }))
}

/** Of some documents those whose moment has come for a response: made, or waiting to be. */
export async function documentsBegun(
  db: Database,
  responseId: string,
  all: readonly FormDocument[],
): Promise<FormDocument[]> {
  const made = await db
    .select({ code: documents.code })
    .from(documents)
    .where(eq(documents.responseId, responseId))
  const runs = await db
    .select({ code: deliveryRuns.delivery })
    .from(deliveryRuns)
    .where(and(eq(deliveryRuns.responseId, responseId), inArray(deliveryRuns.state, ['waiting', 'done'])))
  const [codes, begun] = [made, runs].map(rows => new Set(rows.map(row => row.code)))
  return all.filter(d => codes?.has(d.code) || begun?.has(runOfDocument(d)))
}
