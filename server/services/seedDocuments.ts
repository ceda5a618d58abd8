import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import { holds } from '../../core/parties/deliveries'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { fillFor } from './deliveries/queue'
import { makeDocument } from './documents/documents'

const OF = 'haul_out'
/** Of so many of the newest responses that are done the documents are there already. */
const NEWEST = 3

/** The documents of some of the demo’s responses. */
export async function seedDocuments(db: Database): Promise<void> {
  const done = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(
      and(
        sql`${releases.definition} ->> 'code' = ${OF}`,
        isNull(responses.turn),
        isNull(responses.withdrawnAt),
      ),
    )
    .orderBy(desc(responses.number))
    .limit(NEWEST)
  for (const happened of done) {
    const filled = await fillFor(db, happened)
    for (const document of happened.release.definition.documents ?? [])
      if (holds(filled, document)) await makeDocument(db, happened, { filled, document, who: '' })
  }
}
