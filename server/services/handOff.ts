import { eq } from 'drizzle-orm'
import { fill } from '../../core/fill/fill'
import { turnName, turnOf } from '../../core/parties/turns'
import type { Sending, Sent } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { acceptAnswers, answersToStore } from './acceptAnswers'
import { claimFiles, filesIn } from './files'
import { refuseOthersDraft } from './keepTurn'
import { resolveLink, type LinkTarget, type LinkUse } from './links'
import { findOpenBeside, waits } from './openTurnTarget'
import { openNextTurn } from './openTurn'
import { takePlaces } from './places'
import { handedOn, queueDeliveries } from './deliveries/queue'
import { answersBefore, keepEvent } from './responseEvents'
import { digestOfSending, refuseOtherAnswers } from './sendings'
import { askPayment } from './payments'
import { signDocuments } from './documents/signing'
import { standingOf } from './workspace'

type TurnRow = typeof turns.$inferSelect

/** What is answered to a sending that was taken, but for what is to be paid, and is offered. */
export type Taken = Omit<Sent, 'payment' | 'documents'>

/** What is left of a draft and a remark once a turn is handed on. */
const NOTHING_BEGUN = {
  remark: null,
  pointed: null,
  draft: null,
  draftAt: null,
  draftSeat: null,
  draftKey: null,
  draftBy: null,
  noticeOn: null,
}

/** Takes the answers of a later turn and hands the response on. */
export async function handOff(db: Database, use: LinkUse, sending: Sending): Promise<Taken> {
  return db.transaction(async tx => {
    const target = await resolveLink(tx, use, { lock: true })
    const { plan, turn, row, response, release, who } = target
    if (!turn || !row || !response) return refuse(404, 'not-found', 'There is no such turn.')
    if (row.handedOffAt !== null && row.sendingKey === sending.key) {
      refuseOtherAnswers(row.sendingDigest, sending)
      const again = { ...response, sentAt: row.handedOffAt }
      return sentAnswer(release, again, row.nextTurn, `/f/${use.token}`)
    }
    refuseUnlessOpen(row, response)
    refuseOtherRelease(release.number, sending.release)
    refuseUnseen(row, sending)
    const { begunOn } = response
    const standing = await standingOf(tx, target)
    const filled = acceptAnswers(plan, turn, response.answers, sending.answers, { begunOn, standing })
    const before = new Set(filesIn(fill(plan, response.answers, begunOn)).map(f => f.id))
    const added = filesIn(filled).filter(f => !before.has(f.id))
    await claimFiles(tx, release.id, sending.key, response.id, added)
    const now = new Date()
    const waiting = await findOpenBeside(tx, release.definition, row)
    const next = waiting ?? (await openNextTurn(tx, release, filled, turn, response.id))
    const nextCode = next?.code ?? null
    await tx
      .update(turns)
      .set({
        ...NOTHING_BEGUN,
        handedOffAt: now,
        sendingKey: sending.key,
        sendingDigest: digestOfSending(sending),
        nextTurn: nextCode,
      })
      .where(eq(turns.id, row.id))
    const kept = answersToStore(filled, turn, response.answers, response.people)
    await takePlaces(tx, release, response.answers, kept.answers)
    await tx
      .update(responses)
      .set({ ...kept, turn: waiting ? response.turn : nextCode, sentAt: now })
      .where(eq(responses.id, response.id))
    await keepEvent(tx, {
      responseId: response.id,
      kind: 'sent',
      turn: turn.code,
      who,
      details: { target: nextCode, before: answersBefore(response.answers, kept.answers) },
    })
    const changed = { ...response, ...kept }
    const given = sending.signatures ?? []
    await signDocuments(tx, { response: changed, release }, { turn, who, given, at: now })
    const isEnded = waiting === null && next === null
    const isUnpaid = isEnded && (await askPayment(tx, { response: changed, release }))
    await queueDeliveries(tx, { response: changed, release }, handedOn(turn.code, isEnded && !isUnpaid))
    return sentAnswer(release, { ...response, sentAt: now }, nextCode, `/f/${use.token}`)
  })
}

/** What is answered to a sending that was taken: when, its number, whose turn is next, and one's own link where it may come back. */
export function sentAnswer(
  { definition }: LinkTarget['release'],
  { sentAt, number }: { sentAt: Date; number: number },
  nextTurn: string | null,
  link: string | null,
): Taken {
  const next = nextTurn === null ? null : turnOf(definition, nextTurn)
  return {
    sentAt: sentAt.toISOString(),
    number,
    next: next ? turnName(definition, next) : null,
    link: next ? link : null,
    own: null,
  }
}

function refuseUnlessOpen(row: TurnRow, response: typeof responses.$inferSelect) {
  if (row.givenBackAt !== null)
    refuse(409, 'given-back', 'This was given back meanwhile; it opens here again when it is your turn.')
  if (!waits(row, response))
    refuse(409, 'handed-off', 'This turn has been handed off already; nothing was changed.')
}

/** Refuses a hand-off by which what somebody else has typed meanwhile would be lost unseen. */
function refuseUnseen(row: TurnRow, { seat, base = null }: Sending) {
  if (seat !== undefined) refuseOthersDraft(row, { seat, base })
}

/** Refuses answers to another version of the form than the link is of. */
export function refuseOtherRelease(own: number, sent: number) {
  if (own !== sent)
    refuse(409, 'outdated', 'This page is of another version of the form. Reload it; what you typed is kept.')
}
