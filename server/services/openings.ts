import { eq } from 'drizzle-orm'
import { planOf, type Plan } from '../../core/fill/plan'
import type { Turn } from '../../core/form/definition'
import { firstTurn, turnOf } from '../../core/parties/turns'
import { refuse } from '../http/route'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'
import { releaseByToken } from './releases'

type Release = typeof releases.$inferSelect
type TurnRow = typeof turns.$inferSelect
type ResponseRow = typeof responses.$inferSelect

/** What a link opens: a release to begin with, or a turn of a response under way. */
export interface Opening { release: Release, plan: Plan, turn: Turn | null, row: TurnRow | null, response: ResponseRow | null }

/** What the token of a link leads to. `lock` keeps the turn for this transaction. */
export async function openingBy(db: Database, token: string, lock = false): Promise<Opening> {
  const query = db.select().from(turns).where(eq(turns.token, token))
  const [row] = lock ? await query.for('update') : await query
  if (!row) {
    const release = await releaseByToken(db, token)
    return { release, plan: planOf(release.definition), turn: firstTurn(release.definition), row: null, response: null }
  }
  const [found] = await db.select().from(responses).innerJoin(releases, eq(responses.releaseId, releases.id)).where(eq(responses.id, row.responseId))
  if (!found) return refuse(404, 'not-found', 'The response of this link is no longer kept.')
  const turn = turnOf(found.releases.definition, row.turn)
  return turn ? { release: found.releases, plan: planOf(found.releases.definition), turn, row, response: found.responses } : refuse(404, 'not-found', 'The turn of this link is no longer part of the form.')
}
