import { randomBytes } from 'node:crypto'
import { desc, eq } from 'drizzle-orm'
import { dayNumber } from '../../core/expressions/dates'
import type { Filled } from '../../core/fill/fill'
import type { Turn } from '../../core/form/turns'
import { turnName } from '../../core/parties/turns'
import type { Sending } from '../../shared/api'
import { refuse } from '../http/route'
import { postedFor } from '../stand-ins/post'
import type { Database } from '../store/database'
import { forms, releases, responses, turns } from '../store/schema'
import { claimFiles, filesIn } from './files'
import { todayText } from './releases'
import { openingBy } from './openings'
import { handOff, keptBy, passOn, taken, turnsOf } from './turns'

/** How long ago a response may have been begun, in days; a day ahead allows for time zones. */
const LONGEST_FILLING = 90

/** Answers without their files, in bytes: more than this no form of ours can ask for. */
export const LARGEST_SENDING = 4_000_000

export interface Sent {
  sentAt: string
  next: string | null
}

/**
 * Takes a response, or the turn of one: the rules are decided again here, by the same functions as in the browser. What is not in play is
 * left out; anything that does not fit refuses the whole, and nothing is stored.
 */
export async function takeResponse(db: Database, token: string, sending: Sending): Promise<Sent> {
  const { release, plan, turn, row } = await openingBy(db, token)
  if (row) return handOff(db, token, sending)
  if (release.number !== sending.release)
    refuse(409, 'outdated', 'This page is of another version of the form. Reload it; what you typed is kept.')
  const age = (dayNumber(todayText()) ?? 0) - (dayNumber(sending.begunOn) ?? 0)
  if (age < -1 || age > LONGEST_FILLING)
    refuse(
      422,
      'wrong-day',
      `A response is sent within ${LONGEST_FILLING} days of its beginning. Reload the page to begin again.`,
    )
  const filled = taken(plan, turn, {}, sending.answers, sending.begunOn)
  return db.transaction(tx => store(tx, release, turn, sending, filled))
}

async function store(
  db: Database,
  release: typeof releases.$inferSelect,
  turn: Turn | null,
  sending: Sending,
  filled: Filled,
): Promise<Sent> {
  const [stored] = await db
    .insert(responses)
    .values({
      releaseId: release.id,
      sendingKey: sending.key,
      begunOn: sending.begunOn,
      answers: keptBy(filled, turn, {}),
    })
    .onConflictDoNothing()
    .returning({ id: responses.id, sentAt: responses.sentAt })
  // The same sending again, after a lost connection: it is stored already.
  if (!stored) return { sentAt: new Date().toISOString(), next: null }
  await claimFiles(db, release.id, sending.key, stored.id, filesIn(filled))
  const sentAt = stored.sentAt.toISOString()
  if (!turn) return { sentAt, next: null }
  await db.insert(turns).values({
    responseId: stored.id,
    turn: turn.code,
    token: randomBytes(15).toString('base64url'),
    to: [],
    handedOffAt: stored.sentAt,
  })
  const next = await passOn(db, release, filled, turn, stored.id)
  await db
    .update(responses)
    .set({ turn: next?.code ?? null })
    .where(eq(responses.id, stored.id))
  return { sentAt, next: next ? turnName(release.definition, next) : null }
}

/** The responses to all releases of a form, the newest first, at most `most`. `turn`: the turn that is open. */
export async function responsesOf(db: Database, formId: string, most = 2_000) {
  const rows = await db
    .select({
      id: responses.id,
      sentAt: responses.sentAt,
      begunOn: responses.begunOn,
      answers: responses.answers,
      turn: responses.turn,
      release: releases.number,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(releases.formId, formId))
    .orderBy(desc(responses.sentAt))
    .limit(most)
  return rows.map(r => ({ ...r, sentAt: r.sentAt.toISOString() }))
}

/** One response with the definition that it answers, its turns and what was posted about it. */
export async function responseById(db: Database, id: string) {
  const [row] = await db
    .select({
      id: responses.id,
      sentAt: responses.sentAt,
      begunOn: responses.begunOn,
      answers: responses.answers,
      turn: responses.turn,
      release: releases.number,
      definition: releases.definition,
      formId: forms.id,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .innerJoin(forms, eq(releases.formId, forms.id))
    .where(eq(responses.id, id))
  return row
    ? {
        ...row,
        sentAt: row.sentAt.toISOString(),
        turns: await turnsOf(db, id),
        messages: await postedFor(db, id),
      }
    : refuse(404, 'not-found', 'There is no such response.')
}
