import { eq } from 'drizzle-orm'
import { answersInPlay, fill, type Filled } from '../../core/fill/fill'
import type { Answers } from '../../core/form/answers'
import type { Turn } from '../../core/form/turns'
import { nextTurn, turnName, turnOf } from '../../core/parties/turns'
import type { Sending, Sent } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { responses, turns } from '../store/schema'
import { acceptAnswers, answersToStore } from './acceptAnswers'
import { claimFiles, filesIn } from './files'
import { newToken, resolveLink, type LinkTarget } from './links'
import { digestOfSending, refuseOtherAnswers } from './sendings'

/** Takes the answers of a later turn and hands the response on. */
export async function handOff(db: Database, token: string, sending: Sending): Promise<Sent> {
  return db.transaction(async tx => {
    const { plan, turn, row, response, release } = await resolveLink(tx, token, true)
    if (!turn || !row || !response) return refuse(404, 'not-found', 'There is no such turn.')
    if (row.handedOffAt !== null && row.sendingKey === sending.key) {
      refuseOtherAnswers(row.sendingDigest, sending)
      return sentAnswer(release, row.handedOffAt, row.nextTurn, row.token)
    }
    if (row.handedOffAt !== null || response.turn !== turn.code)
      refuse(409, 'handed-off', 'This turn has been handed off already; nothing was changed.')
    refuseOtherRelease(release.number, sending.release)
    const filled = acceptAnswers(plan, turn, response.answers, sending.answers, response.begunOn)
    const before = new Set(filesIn(fill(plan, response.answers, response.begunOn)).map(f => f.id))
    const added = filesIn(filled).filter(f => !before.has(f.id))
    await claimFiles(tx, release.id, sending.key, response.id, added)
    const now = new Date()
    const next = await openNextTurn(tx, release, filled, turn, response.id)
    await tx
      .update(turns)
      .set({
        handedOffAt: now,
        remark: null,
        sendingKey: sending.key,
        sendingDigest: digestOfSending(sending),
        nextTurn: next?.code ?? null,
      })
      .where(eq(turns.id, row.id))
    await tx
      .update(responses)
      .set({
        ...answersToStore(filled, turn, response.answers, response.people),
        turn: next?.code ?? null,
        sentAt: now,
      })
      .where(eq(responses.id, response.id))
    return sentAnswer(release, now, next?.code ?? null, row.token)
  })
}

/** What is answered to a sending that was taken: when, whose turn is next, and one's own link where it may come back. */
export function sentAnswer(
  { definition }: LinkTarget['release'],
  sentAt: Date,
  nextTurn: string | null,
  token: string | null,
): Sent {
  const next = nextTurn === null ? null : turnOf(definition, nextTurn)
  return {
    sentAt: sentAt.toISOString(),
    next: next ? turnName(definition, next) : null,
    link: next && token ? `/f/${token}` : null,
  }
}

/** Refuses answers to another version of the form than the link is of. */
export function refuseOtherRelease(own: number, sent: number) {
  if (own !== sent)
    refuse(409, 'outdated', 'This page is of another version of the form. Reload it; what you typed is kept.')
}

/** Opens the next turn, if there is one, and tells whoever is to act. */
export async function openNextTurn(
  db: Database,
  { definition }: LinkTarget['release'],
  filled: Filled,
  turn: Turn,
  responseId: string,
): Promise<Turn | null> {
  const next = nextTurn(filled, turn)
  if (!next) return null
  const to = actorsOf(answersInPlay(filled), next)
  const token = newToken()
  await db.insert(turns).values({ responseId, turn: next.code, token, to })
  const name = turnName(definition, next)
  await sendMail(
    db,
    to.map(address => ({
      responseId,
      to: address,
      subject: `${definition.title}: ${name}`,
      text: `It is your turn: ${name}. Open /f/${token} to go on.`,
    })),
  )
  return next
}

/** The e-mail addresses of those who are to act in a turn; none where anyone with the link may. */
export function actorsOf(answers: Answers, { by }: Turn): string[] {
  if (by === 'link') return []
  if ('person' in by) return [by.person]
  if ('team' in by) return by.team
  const value = answers[by.answer]
  return typeof value === 'string' ? [value] : []
}
