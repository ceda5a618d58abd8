import { eq } from 'drizzle-orm'
import { withTurn } from '../../core/parties/turns'
import type { TurnToKeep } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { turns } from '../store/schema'
import { resolveLink, type LinkTarget, type LinkUse } from './links'
import { waits } from './openTurnTarget'

/** Keeps what somebody has typed in a later turn. Refused where somebody else has typed there since: nothing is overwritten unseen. */
export async function keepTurn(db: Database, use: LinkUse, typed: TurnToKeep): Promise<{ at: string }> {
  return db.transaction(async tx => {
    const target = await resolveLink(tx, use, { lock: true })
    return { at: (await keepDraft(tx, target, typed)).toISOString() }
  })
}

/** The same of a turn that is locked already. @returns when it was kept */
export async function keepDraft(db: Database, target: LinkTarget, typed: TurnToKeep): Promise<Date> {
  const { plan, turn, row, response, who } = target
  if (!turn || !row || !response) return refuse(404, 'not-found', 'There is no turn to be kept here.')
  if (!isOpen(target))
    refuse(409, 'not-open', 'This turn is not open any more; what you typed stays on your device.')
  refuseOthersDraft(row, typed)
  const { foreign } = withTurn(plan, turn, response.answers, typed.answers)
  if (foreign.length > 0)
    refuse(422, 'unknown-question', 'These answers are not this turn’s to give; nothing was kept.')
  const draftAt = new Date()
  await db
    .update(turns)
    .set({ draft: typed.answers, draftAt, draftSeat: typed.seat, draftKey: typed.key, draftBy: who })
    .where(eq(turns.id, row.id))
  return draftAt
}

/** Refuses what would overwrite what somebody else has typed in a turn since a page knows it. */
export function refuseOthersDraft(
  { draftAt, draftSeat, draftBy }: Pick<typeof turns.$inferSelect, 'draftAt' | 'draftSeat' | 'draftBy'>,
  { seat, base }: { seat: string; base: string | null },
): void {
  if (draftAt === null || draftSeat === seat || draftAt.toISOString() === base) return
  refuse(
    409,
    'kept-by-others',
    `${draftBy || 'Somebody else'} has gone on with this turn meanwhile; nothing was overwritten.`,
  )
}

/** Whether a turn can be filled now: that of a new response, or the one that is open. */
export const isOpen = ({ row, response }: LinkTarget): boolean => row === null || waits(row, response)

/** Whether what a link opens can be handed on, or sent first, now: not what is corrected. */
export const mayHandOn = (target: LinkTarget): boolean =>
  isOpen(target) && (target.response === null || target.row !== null)
