import { and, count, eq, isNull } from 'drizzle-orm'
import type { AnswerOf, API } from '../../shared/api/endpoints'
import type { Power } from '../../shared/api/sharing'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { listAcceptances } from './acceptances'
import { loadFormRow } from './drafts'
import { listLooks } from './looks'
import { listReleases } from './releases'
import { loadWorkspace } from './workspace'

/** A form as somebody opens it who may see it, with its releases, and for those who may see them how many responses there are. */
export async function loadForm(
  db: Database,
  id: string,
  powers: ReadonlySet<Power>,
): Promise<AnswerOf<typeof API.loadForm>> {
  const row = await loadFormRow(db, id)
  return {
    id: row.id,
    draft: row.draft,
    revision: row.revision,
    savedAt: row.savedAt.toISOString(),
    releases: await listReleases(db, id),
    responses: powers.has('responses') ? await countResponses(db, id) : null,
    powers: [...powers],
    accepted: await listAcceptances(db, id),
    workspace: await loadWorkspace(db),
    looks: await listLooks(db),
  }
}

/** How many responses there are to all releases of a form, but for those in the bin. */
export async function countResponses(db: Database, formId: string): Promise<number> {
  const [found] = await db
    .select({ number: count() })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, formId), isNull(responses.binnedAt)))
  return Number(found?.number ?? 0)
}
