import { and, eq } from 'drizzle-orm'
import { dayNumber } from '../../core/expressions/dates'
import { answersInPlay, type Filled } from '../../core/fill/fill'
import type { Turn } from '../../core/form/turns'
import type { Sending, Sent } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { acceptAnswers, answersToStore } from './acceptAnswers'
import { isoToday } from './calendar'
import { claimFiles, filesIn } from './files'
import { actorsOf, handOff, openNextTurn, refuseOtherRelease, sentAnswer } from './handOff'
import { newToken, resolveLink, type LinkTarget } from './links'
import { digestOfSending, refuseOtherAnswers } from './sendings'

/** How long ago a response may have been begun, in days; a day ahead allows for time zones. */
const LONGEST_FILLING = 90

/** Takes a response, or the turn of one. What is not in play is left out; anything that does not fit refuses the whole, and nothing is stored. */
export async function submitAnswers(db: Database, token: string, sending: Sending): Promise<Sent> {
  const { release, plan, turn, row } = await resolveLink(db, token)
  if (row) return handOff(db, token, sending)
  refuseOtherRelease(release.number, sending.release)
  refuseWrongDay(sending.begunOn)
  const filled = acceptAnswers(plan, turn, {}, sending.answers, sending.begunOn)
  // One row alone is stored whole without a transaction around it.
  if (!turn && filesIn(filled).length === 0) return storeResponse(db, release, turn, sending, filled)
  return db.transaction(tx => storeResponse(tx, release, turn, sending, filled))
}

function refuseWrongDay(begunOn: string) {
  const age = (dayNumber(isoToday()) ?? 0) - (dayNumber(begunOn) ?? 0)
  if (age >= -1 && age <= LONGEST_FILLING) return
  refuse(
    422,
    'wrong-day',
    `A response is sent within ${LONGEST_FILLING} days of its beginning. Reload the page to begin again.`,
  )
}

async function storeResponse(
  db: Database,
  release: LinkTarget['release'],
  turn: Turn | null,
  sending: Sending,
  filled: Filled,
): Promise<Sent> {
  const [stored] = await db
    .insert(responses)
    .values({
      releaseId: release.id,
      sendingKey: sending.key,
      sendingDigest: digestOfSending(sending),
      begunOn: sending.begunOn,
      ...answersToStore(filled, turn, {}, null),
    })
    .onConflictDoNothing()
    .returning({ id: responses.id, sentAt: responses.sentAt })
  if (!stored) return answerAgain(db, release, sending)
  await claimFiles(db, release.id, sending.key, stored.id, filesIn(filled))
  const sentAt = stored.sentAt.toISOString()
  if (!turn) return { sentAt, next: null, link: null }
  const next = await openNextTurn(db, release, filled, turn, stored.id)
  const token = newToken()
  await db.insert(turns).values({
    responseId: stored.id,
    turn: turn.code,
    token,
    to: actorsOf(answersInPlay(filled), turn),
    openedAt: stored.sentAt,
    handedOffAt: stored.sentAt,
    sendingKey: sending.key,
    sendingDigest: digestOfSending(sending),
    nextTurn: next?.code ?? null,
  })
  await db
    .update(responses)
    .set({ turn: next?.code ?? null })
    .where(eq(responses.id, stored.id))
  return sentAnswer(release, stored.sentAt, next?.code ?? null, token)
}

/** The same sending again, after a lost connection: it is stored already, and gets the same answer. */
async function answerAgain(db: Database, release: LinkTarget['release'], sending: Sending): Promise<Sent> {
  const [row] = await db
    .select({
      id: responses.id,
      sentAt: responses.sentAt,
      digest: responses.sendingDigest,
      token: turns.token,
      nextTurn: turns.nextTurn,
    })
    .from(responses)
    .leftJoin(turns, and(eq(turns.responseId, responses.id), eq(turns.sendingKey, sending.key)))
    .where(and(eq(responses.releaseId, release.id), eq(responses.sendingKey, sending.key)))
  if (!row) return refuse(409, 'sent-before', 'This was sent already, and has been deleted since.')
  refuseOtherAnswers(row.digest, sending)
  return sentAnswer(release, row.sentAt, row.nextTurn, row.token)
}
