import { and, eq } from 'drizzle-orm'
import { dayNumber } from '../../core/expressions/dates'
import type { Filled } from '../../core/fill/fill'
import type { Turn } from '../../core/form/turns'
import { turnOf } from '../../core/parties/turns'
import type { Sending, Sent } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { acceptAnswers, answersToStore } from './acceptAnswers'
import { isoToday } from './calendar'
import { countSender, isBounded, isCounted, refuseMasses, senderOf } from './admission'
import { claimFiles, filesIn } from './files'
import { handOff, refuseOtherRelease, sentAnswer, type Taken } from './handOff'
import { broughtBy, resolveLink, type LinkTarget, type LinkUse } from './links'
import { correctAnswers } from './correctAnswers'
import { isCorrectable, linkToCorrect } from './ownLinks'
import { openNextTurn, whoIsToAct } from './openTurn'
import { standingOf } from './workspace'
import { doneNow, handedOn, queueDeliveries } from './deliveries/queue'
import { keepEvent } from './responseEvents'
import { makeLink } from './turnLinks'
import { digestOfSending, refuseOtherAnswers } from './sendings'
import { askPayment, paymentForSender } from './payments'
import { documentsForSender } from './documents/offered'
import { signDocuments } from './documents/signing'
import { isStillTaken, refuseUnlessTaken, type Entrance } from './entrances'
import { refuseIfFull } from './openings'
import { takePlaces } from './places'
import { storeNumbered, type Stored } from './storeNumbered'

/** How long ago a response may have been begun, in days; a day ahead allows for time zones. */
const LONGEST_FILLING = 90

/** Takes a response, or the turn of one. What is not in play is left out; anything that does not fit refuses the whole, and nothing is stored. */
export async function submitAnswers(db: Database, use: LinkUse, sending: Sending): Promise<Sent> {
  const target = await resolveLink(db, use, { for: 'sending' })
  const taken = await takeAnswers(db, use, target, sending)
  const payment = await paymentForSender(db, target, taken.number)
  return { ...taken, payment, documents: await documentsForSender(db, target, taken.number) }
}

async function takeAnswers(db: Database, use: LinkUse, target: LinkTarget, sending: Sending): Promise<Taken> {
  const { release, plan, turn, row, entrance } = target
  if (row) return handOff(db, use, sending)
  if (target.response) return correctAnswers(db, use, sending)
  const taken = entrance && (await answerIfTaken(db, use, target, entrance, sending))
  if (taken) return taken
  refuseOtherRelease(release.number, sending.release)
  refuseWrongDay(sending.begunOn)
  const standing = await standingOf(db, target)
  const given = { ...sending.answers, ...broughtBy(target) }
  const filled = acceptAnswers(plan, turn, {}, given, { begunOn: sending.begunOn, standing })
  const kept = { filled, answers: answersToStore(filled, turn, {}, null) }
  const stored = isOneStatement(target, use, filled)
    ? await storeResponse(db, use, target, sending, kept)
    : await db.transaction(tx => storeResponse(tx, use, target, sending, kept))
  if (stored) return stored
  const again = await answerAgain(db, target, sending)
  if (again) return again
  await refuseIfFull(db, release.formId)
  return refuseSentBefore()
}

/** Refuses what the form takes no more, or what comes in masses; what it has taken already is answered again. */
async function answerIfTaken(
  db: Database,
  use: LinkUse,
  target: LinkTarget,
  entrance: Entrance,
  sending: Sending,
): Promise<Taken | null> {
  if (!isBounded(entrance) && isStillTaken(entrance)) return null
  const taken = await answerAgain(db, target, sending)
  if (taken) return taken
  refuseUnlessTaken(entrance, true)
  await refuseMasses(db, use, entrance, sending)
  return null
}

/** Whether one statement stores all of a response: it is atomic by itself. */
const isOneStatement = ({ turn, entrance, release }: LinkTarget, use: LinkUse, filled: Filled): boolean =>
  turn === null &&
  filesIn(filled).length === 0 &&
  !entrance?.places?.length &&
  !isTold(release, entrance) &&
  !release.definition.payment &&
  !isCounted(entrance, use) &&
  !isCorrectable(entrance)

/** Whether something may happen by itself when it is sent. */
const isTold = (release: LinkTarget['release'], entrance: Entrance | null): boolean =>
  Boolean(release.definition.deliveries?.length) ||
  Boolean(release.definition.documents?.length) ||
  entrance?.hasHooks === true

function refuseWrongDay(begunOn: string) {
  const age = (dayNumber(isoToday()) ?? 0) - (dayNumber(begunOn) ?? 0)
  if (age >= -1 && age <= LONGEST_FILLING) return
  refuse(
    422,
    'wrong-day',
    `A response is sent within ${LONGEST_FILLING} days of its beginning. Reload the page to begin again.`,
  )
}

/** Stores a response with its files, and hands it on from its first turn; null where it was sent before. */
async function storeResponse(
  db: Database,
  use: LinkUse,
  { release, turn, who, entrance }: LinkTarget,
  sending: Sending,
  { filled, answers }: { filled: Filled; answers: ReturnType<typeof answersToStore> },
): Promise<Taken | null> {
  const stored = await storeNumbered(db, release, sending, answers, {
    most: entrance?.settings?.most ?? null,
    ...senderOf(entrance, use),
  })
  if (!stored) return null
  if (entrance && isCounted(entrance, use)) await countSender(db, use, entrance)
  if (entrance?.places?.length) await takePlaces(db, release, {}, answers.answers)
  await claimFiles(db, release.id, sending.key, stored.id, filesIn(filled))
  const response = { ...stored, ...answers, begunOn: sending.begunOn }
  const given = sending.signatures ?? []
  await signDocuments(db, { response, release }, { turn, who, given, at: stored.sentAt })
  if (!turn) {
    const isUnpaid = await askPayment(db, { response, release })
    if (isTold(release, entrance))
      await queueDeliveries(db, { response, release }, [{ event: 'sent' }, ...doneNow(isUnpaid)])
    return { ...sentAnswer(release, stored, null, null), own: await linkToCorrect(db, entrance, stored.id) }
  }
  if (isTold(release, entrance)) await queueDeliveries(db, { response, release }, [{ event: 'sent' }])
  return handFirstOn(db, { release, turn, who }, sending, { filled, answers }, stored)
}

const refuseSentBefore = () =>
  refuse(409, 'sent-before', 'This was sent already, and has been deleted since.')

/** Hands a response on from its first turn, which is kept as taken. */
async function handFirstOn(
  db: Database,
  { release, turn, who }: { release: LinkTarget['release']; turn: Turn; who: string },
  sending: Sending,
  { filled, answers: kept }: { filled: Filled; answers: ReturnType<typeof answersToStore> },
  stored: Stored,
): Promise<Taken> {
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
  const response = { ...stored, ...kept, begunOn: sending.begunOn }
  const isUnpaid = target === null && (await askPayment(db, { response, release }))
  await queueDeliveries(db, { response, release }, handedOn(turn.code, target === null && !isUnpaid))
  return sentAnswer(release, stored, target, row ? await ownLink(db, row.id, turn) : null)
}

/** The link by which the first party comes back to its turn. */
const ownLink = (db: Database, turnId: string, turn: Turn) =>
  turn.signIn ? `/f/${turnId}` : makeLink(db, turnId, turn, null)

/** The same sending again, after a lost connection: it is stored already, and gets the same answer; its own link is made anew. Null where it is new. */
async function answerAgain(
  db: Database,
  { release, entrance }: Pick<LinkTarget, 'release' | 'entrance'>,
  sending: Sending,
): Promise<Taken | null> {
  const [row] = await db
    .select({
      id: responses.id,
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
  const own = turn ? null : await linkToCorrect(db, entrance, row.id)
  return { ...sentAnswer(release, row, row.nextTurn, link), own }
}
