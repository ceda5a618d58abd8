import { and, eq, sql } from 'drizzle-orm'
import { dayNumber } from '../../core/expressions/dates'
import type { Filled } from '../../core/fill/fill'
import type { Turn } from '../../core/form/turns'
import { turnOf } from '../../core/parties/turns'
import type { Sending, Sent } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responseCounts, responses, turns } from '../store/schema'
import { acceptAnswers, answersToStore } from './acceptAnswers'
import { isoToday } from './calendar'
import { claimFiles, filesIn } from './files'
import { handOff, refuseOtherRelease, sentAnswer } from './handOff'
import { resolveLink, type LinkTarget, type LinkUse } from './links'
import { openNextTurn, whoIsToAct } from './openTurn'
import { standingOf } from './workspace'
import { keepEvent } from './responseEvents'
import { makeLink } from './turnLinks'
import { digestOfSending, refuseOtherAnswers } from './sendings'

/** How long ago a response may have been begun, in days; a day ahead allows for time zones. */
const LONGEST_FILLING = 90

/** Takes a response, or the turn of one. What is not in play is left out; anything that does not fit refuses the whole, and nothing is stored. */
export async function submitAnswers(db: Database, use: LinkUse, sending: Sending): Promise<Sent> {
  const target = await resolveLink(db, use)
  const { release, plan, turn, row } = target
  if (row) return handOff(db, use, sending)
  refuseOtherRelease(release.number, sending.release)
  refuseWrongDay(sending.begunOn)
  const standing = await standingOf(db, target)
  const filled = acceptAnswers(plan, turn, {}, sending.answers, { begunOn: sending.begunOn, standing })
  return db.transaction(async tx => {
    const again = await answerAgain(tx, release, sending)
    return again ?? (await storeResponse(tx, target, sending, filled))
  })
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
  { release, turn, who }: LinkTarget,
  sending: Sending,
  filled: Filled,
): Promise<Sent> {
  const [stored] = await db
    .insert(responses)
    .values({
      releaseId: release.id,
      number: await nextNumber(db, release.formId),
      sendingKey: sending.key,
      sendingDigest: digestOfSending(sending),
      begunOn: sending.begunOn,
      ...answersToStore(filled, turn, {}, null),
    })
    .onConflictDoNothing()
    .returning({ id: responses.id, sentAt: responses.sentAt, number: responses.number })
  // Sent twice in one moment: the other one was first.
  if (!stored) return (await answerAgain(db, release, sending)) ?? refuseSentBefore()
  await claimFiles(db, release.id, sending.key, stored.id, filesIn(filled))
  if (!turn) return sentAnswer(release, stored, null, null)
  return handFirstOn(db, { release, turn, who }, sending, filled, stored)
}

const refuseSentBefore = () =>
  refuse(409, 'sent-before', 'This was sent already, and has been deleted since.')

/** The next number among the responses of a form. Who takes one holds it until the response is stored. */
async function nextNumber(db: Database, formId: string): Promise<number> {
  const [row] = await db
    .insert(responseCounts)
    .values({ formId, taken: 1 })
    .onConflictDoUpdate({
      target: responseCounts.formId,
      set: { taken: sql`${responseCounts.taken} + 1` },
    })
    .returning({ taken: responseCounts.taken })
  if (!row) throw new Error('A response got no number.')
  return row.taken
}

/** Hands a response on from its first turn, which is kept as taken. */
async function handFirstOn(
  db: Database,
  { release, turn, who }: { release: LinkTarget['release']; turn: Turn; who: string },
  sending: Sending,
  filled: Filled,
  stored: { id: string; sentAt: Date; number: number },
): Promise<Sent> {
  const next = await openNextTurn(db, release, filled, turn, stored.id)
  const target = next?.code ?? null
  const to = await whoIsToAct(db, release, filled, turn)
  const [row] = await db
    .insert(turns)
    .values({
      responseId: stored.id,
      turn: turn.code,
      to,
      openedAt: stored.sentAt,
      handedOffAt: stored.sentAt,
      sendingKey: sending.key,
      sendingDigest: digestOfSending(sending),
      nextTurn: target,
    })
    .returning({ id: turns.id })
  await db.update(responses).set({ turn: target }).where(eq(responses.id, stored.id))
  await keepEvent(db, {
    responseId: stored.id,
    kind: 'sent',
    turn: turn.code,
    who: who || to.join(', '),
    details: { target },
    at: stored.sentAt,
  })
  return sentAnswer(release, stored, target, row ? await ownLink(db, row.id, turn) : null)
}

/** The link by which the first party comes back to its turn. */
const ownLink = (db: Database, turnId: string, turn: Turn) =>
  turn.signIn ? `/f/${turnId}` : makeLink(db, turnId, turn, null)

/** The same sending again, after a lost connection: it is stored already, and gets the same answer; its own link is made anew. Null where it is new. */
async function answerAgain(
  db: Database,
  release: LinkTarget['release'],
  sending: Sending,
): Promise<Sent | null> {
  const [row] = await db
    .select({
      sentAt: responses.sentAt,
      number: responses.number,
      digest: responses.sendingDigest,
      turnId: turns.id,
      turn: turns.turn,
      nextTurn: turns.nextTurn,
    })
    .from(responses)
    .leftJoin(turns, and(eq(turns.responseId, responses.id), eq(turns.sendingKey, sending.key)))
    .where(and(eq(responses.releaseId, release.id), eq(responses.sendingKey, sending.key)))
  if (!row) return null
  refuseOtherAnswers(row.digest, sending)
  const turn = row.turn === null ? null : turnOf(release.definition, row.turn)
  const link = turn && row.turnId !== null ? await ownLink(db, row.turnId, turn) : null
  return sentAnswer(release, row, row.nextTurn, link)
}
