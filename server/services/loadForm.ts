import { count, eq } from 'drizzle-orm'
import type { AnswerOf, API } from '../../shared/api/endpoints'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { listAcceptances } from './acceptances'
import { loadFormRow } from './drafts'
import { listReleases } from './releases'

/** A form as a designer opens it, with its releases and how many responses there are to all of them. */
export async function loadForm(db: Database, id: string): Promise<AnswerOf<typeof API.loadForm>> {
  const row = await loadFormRow(db, id)
  return {
    id: row.id,
    draft: row.draft,
    revision: row.revision,
    savedAt: row.savedAt.toISOString(),
    releases: await listReleases(db, id),
    responses: await countResponses(db, id),
    accepted: await listAcceptances(db, id),
  }
}

/** How many responses there are to all releases of a form. */
export async function countResponses(db: Database, formId: string): Promise<number> {
  const [found] = await db
    .select({ number: count() })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(releases.formId, formId))
  return Number(found?.number ?? 0)
}
