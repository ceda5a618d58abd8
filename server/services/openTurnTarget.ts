import { and, eq, inArray, isNull, ne } from 'drizzle-orm'
import { openedWith } from '../../core/form/alongside'
import type { Form } from '../../core/form/definition'
import type { Turn } from '../../core/form/turns'
import { turnOf } from '../../core/parties/turns'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'

type TurnRow = typeof turns.$inferSelect

/** A turn that waits to be taken, with its response. */
export interface OpenTurnTarget {
  row: TurnRow
  response: typeof responses.$inferSelect
  release: typeof releases.$inferSelect
  turn: Turn
}

/** Keeps a response with all its turns for this transaction. @returns the turn as it is now; null where it is gone */
export async function lockTurn(
  db: Database,
  { id, responseId }: Pick<TurnRow, 'id' | 'responseId'>,
): Promise<TurnRow | null> {
  await db.select({ id: responses.id }).from(responses).where(eq(responses.id, responseId)).for('update')
  const [row] = await db.select().from(turns).where(eq(turns.id, id))
  return row ?? null
}

/** Whether a turn waits to be taken, as it and its response are stored. */
export const waits = (
  { handedOffAt, givenBackAt }: Pick<TurnRow, 'handedOffAt' | 'givenBackAt'>,
  response: Pick<typeof responses.$inferSelect, 'turn'> | null | undefined,
): boolean => handedOffAt === null && givenBackAt === null && response != null && response.turn !== null

/** The turn with an id, kept with its response for this transaction; null where it does not wait (any more). */
export async function findOpenTurn(db: Database, id: string): Promise<OpenTurnTarget | null> {
  const [known] = await db.select().from(turns).where(eq(turns.id, id))
  const row = known && (await lockTurn(db, known))
  if (!row) return null
  const [found] = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(responses.id, row.responseId))
  const turn = found && turnOf(found.release.definition, row.turn)
  return turn && waits(row, found.response) ? { row, turn, ...found } : null
}

/** The same, refused where it does not wait. */
export async function loadOpenTurn(db: Database, id: string): Promise<OpenTurnTarget> {
  const refused = 'This turn was handed on, given back or withdrawn meanwhile; nothing was changed.'
  return (await findOpenTurn(db, id)) ?? refuse(409, 'not-open', refused)
}

/** A turn that is open at once with one, and waits still; null where there is none. */
export async function findOpenBeside(
  db: Database,
  form: Form,
  { id, turn: code, responseId }: TurnRow,
): Promise<Turn | null> {
  const turn = turnOf(form, code)
  const together = turn ? openedWith(form, turn).map(t => t.code) : []
  const [open] = await db
    .select({ code: turns.turn })
    .from(turns)
    .where(
      and(
        eq(turns.responseId, responseId),
        inArray(turns.turn, together),
        ne(turns.id, id),
        isNull(turns.handedOffAt),
        isNull(turns.givenBackAt),
      ),
    )
    .limit(1)
  return open ? turnOf(form, open.code) : null
}
