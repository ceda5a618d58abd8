import { and, eq, isNull, lt, sql } from 'drizzle-orm'
import type { Database } from '../store/database'
import type { releases } from '../store/schema'
import { responseCounts, responses, turns } from '../store/schema'
import { recountSender } from './admission'
import type { ResponseAct } from './actOnOne'
import { isoToday } from './calendar'
import { datesOf } from './openTurn'
import { giveUp, takePlaces } from './places'
import { keepEvent } from './responseEvents'
import { turnOf } from '../../core/parties/turns'

/** Days for which a deleted response can be put back. */
export const DAYS_IN_BIN = 30

/** Puts a response into the bin: nothing of it is open any more, it counts nowhere, and there is room for another one. */
export const binResponse =
  (who: string, reason: string): ResponseAct =>
  async (db, { response }) => {
    if (response.binnedAt !== null) return 'It is in the bin already.'
    await db
      .update(responses)
      .set({ binnedAt: new Date(), turn: null, turnBefore: response.turn })
      .where(eq(responses.id, response.id))
    await db.update(turns).set({ noticeOn: null }).where(eq(turns.responseId, response.id))
    if (response.withdrawnAt === null) await giveUp(db, response)
    await keep(db, response.id, 'deleted', who, reason)
    return null
  }

/** Takes a response out of the bin: its turn is open again, and it counts. Not where what it has chosen has run out meanwhile. */
export const putBack =
  (who: string): ResponseAct =>
  async (db, { response, release }) => {
    if (response.binnedAt === null) return 'It is not in the bin.'
    const { turnBefore } = response
    await db
      .update(responses)
      .set({ binnedAt: null, turn: turnBefore, turnBefore: null })
      .where(eq(responses.id, response.id))
    if (response.withdrawnAt === null) await standAgain(db, response, release)
    const turn = turnBefore === null ? null : turnOf(release.definition, turnBefore)
    if (turn)
      await db
        .update(turns)
        .set({ noticeOn: datesOf(turn, isoToday()).noticeOn })
        .where(
          and(
            eq(turns.responseId, response.id),
            isNull(turns.handedOffAt),
            isNull(turns.givenBackAt),
            eq(turns.turn, turn.code),
          ),
        )
    await keep(db, response.id, 'put back', who)
    return null
  }

async function standAgain(
  db: Database,
  response: typeof responses.$inferSelect,
  release: typeof releases.$inferSelect,
) {
  await db
    .update(responseCounts)
    .set({ standing: sql`${responseCounts.standing} + 1` })
    .where(eq(responseCounts.formId, release.formId))
  await recountSender(db, release.formId, response)
  await takePlaces(db, release, {}, response.answers)
}

/** Deletes a response that is in the bin, with everything that belongs to it. */
export const deleteForGood: ResponseAct = async (db, { response }) => {
  if (response.binnedAt === null) return 'Only what is in the bin is deleted for good.'
  await db.delete(responses).where(eq(responses.id, response.id))
  return null
}

/** Empties the bin of what has been in it long enough. */
export async function sweepBin(db: Database): Promise<void> {
  const days = DAYS_IN_BIN
  await db.delete(responses).where(lt(responses.binnedAt, sql`now() - make_interval(days => ${days})`))
}

const keep = (db: Database, responseId: string, kind: 'deleted' | 'put back', who: string, remark?: string) =>
  keepEvent(db, { responseId, kind, turn: '', who, details: remark === undefined ? {} : { remark } })
