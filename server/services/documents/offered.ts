import { and, eq, inArray } from 'drizzle-orm'
import { findUnseen, isOffered } from '../../../core/documents/seenBy'
import { planOf } from '../../../core/fill/plan'
import type { FormDocument } from '../../../core/form/documents'
import type { Turn } from '../../../core/form/turns'
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
  const due = await codesDue(db, found.response.id)
  return offered.filter(d => due.has(d.code)).map(d => ({ code: d.code, title: d.title || d.code }))
}

/** The codes of the documents of a response whose moment has come: made, or waiting to be. */
export async function codesDue(db: Database, responseId: string): Promise<Set<string>> {
  const made = await db
    .select({ code: documents.code })
    .from(documents)
    .where(eq(documents.responseId, responseId))
  const runs = await db
    .select({ code: deliveryRuns.delivery })
    .from(deliveryRuns)
    .where(and(eq(deliveryRuns.responseId, responseId), inArray(deliveryRuns.state, ['waiting', 'done'])))
  const waiting = runs.flatMap(({ code }) => (code.startsWith(RUN) ? [code.slice(RUN.length)] : []))
  return new Set([...made.map(d => d.code), ...waiting])
}
const RUN = 'document '
