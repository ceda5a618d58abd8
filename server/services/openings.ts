import { eq } from 'drizzle-orm'
import { planOf } from '../../core/fill/plan'
import { type Plan } from '../../core/fill/planned'
import type { Turn } from '../../core/form/turns'
import { firstTurn, turnOf } from '../../core/parties/turns'
import { refuse } from '../http/route'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'

/** How many releases are kept ready to be filled; a release never changes, and one with a long list takes long to read. */
const READY = 12
const ready = new Map<string, { release: Release; plan: Plan }>()

/** A release, read and planned once. */
async function readyRelease(db: Database, id: string): Promise<{ release: Release; plan: Plan }> {
  const known = ready.get(id)
  ready.delete(id)
  const [row] = known ? [] : await db.select().from(releases).where(eq(releases.id, id))
  const found =
    known ??
    (row
      ? { release: row, plan: planOf(row.definition) }
      : refuse(404, 'not-found', 'This link leads nowhere. Ask whoever sent it for a new one.'))
  ready.set(id, found)
  const [oldest] = ready.keys()
  if (ready.size > READY && oldest !== undefined) ready.delete(oldest)
  return found
}

type Release = typeof releases.$inferSelect
type TurnRow = typeof turns.$inferSelect
type ResponseRow = typeof responses.$inferSelect

/** What a link opens: a release to begin with, or a turn of a response under way. */
export interface Opening {
  release: Release
  plan: Plan
  turn: Turn | null
  row: TurnRow | null
  response: ResponseRow | null
}

/** What the token of a link leads to. `lock` keeps the turn for this transaction. */
export async function openingBy(db: Database, token: string, lock = false): Promise<Opening> {
  const query = db.select().from(turns).where(eq(turns.token, token))
  const [row] = lock ? await query.for('update') : await query
  if (!row) {
    const [found] = await db.select({ id: releases.id }).from(releases).where(eq(releases.token, token))
    if (!found) return refuse(404, 'not-found', 'This link leads nowhere. Ask whoever sent it for a new one.')
    const { release, plan } = await readyRelease(db, found.id)
    return { release, plan, turn: firstTurn(release.definition), row: null, response: null }
  }
  const [response] = await db.select().from(responses).where(eq(responses.id, row.responseId))
  if (!response) return refuse(404, 'not-found', 'The response of this link is no longer kept.')
  const { release, plan } = await readyRelease(db, response.releaseId)
  const turn = turnOf(release.definition, row.turn)
  return turn
    ? { release, plan, turn, row, response }
    : refuse(404, 'not-found', 'The turn of this link is no longer part of the form.')
}
