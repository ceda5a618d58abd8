import { eq } from 'drizzle-orm'
import type { Turn } from '../../core/form/turns'
import { turnOf } from '../../core/parties/turns'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'

/** A turn that waits to be taken, with its response. */
export interface OpenTurnTarget {
  row: typeof turns.$inferSelect
  response: typeof responses.$inferSelect
  release: typeof releases.$inferSelect
  turn: Turn
}

/** The turn with an id, kept for this transaction; null where it does not wait (any more). */
export async function findOpenTurn(db: Database, id: string): Promise<OpenTurnTarget | null> {
  const [row] = await db.select().from(turns).where(eq(turns.id, id)).for('update')
  if (!row) return null
  const [found] = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(responses.id, row.responseId))
  const turn = found && turnOf(found.release.definition, row.turn)
  const isOpen = row.handedOffAt === null && row.givenBackAt === null && found?.response.turn === row.turn
  return turn && isOpen ? { row, turn, ...found } : null
}

/** The same, refused where it does not wait. */
export async function loadOpenTurn(db: Database, id: string): Promise<OpenTurnTarget> {
  const refused = 'This turn was handed on, given back or withdrawn meanwhile; nothing was changed.'
  return (await findOpenTurn(db, id)) ?? refuse(409, 'not-open', refused)
}
