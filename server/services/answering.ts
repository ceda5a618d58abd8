import { desc, eq } from 'drizzle-orm'
import { dayNumber } from '../../core/expressions/dates'
import { allProblems, answersInPlay, fill, type Filled } from '../../core/fill/fill'
import { claimFiles, filesIn } from './files'
import { planOf } from '../../core/fill/plan'
import type { Sending } from '../../shared/api'
import type { Database } from '../store/database'
import { forms, releases, responses } from '../store/schema'
import { refuse } from '../http/route'
import { releaseByToken, todayText } from './releases'

/** How long ago a response may have been begun, in days; a day ahead allows for time zones. */
const LONGEST_FILLING = 90

/**
 * Takes a response: the rules are decided again here, by the same functions as in the browser. What is not in play is left
 * out; anything that does not fit refuses the whole, and nothing is stored.
 */
export async function takeResponse(db: Database, token: string, sending: Sending): Promise<{ sentAt: string }> {
  const release = await releaseByToken(db, token)
  if (release.number !== sending.release) refuse(409, 'outdated', 'This page is of another version of the form. Reload it; what you typed is kept.')
  const age = (dayNumber(todayText()) ?? 0) - (dayNumber(sending.begunOn) ?? 0)
  if (age < -1 || age > LONGEST_FILLING) refuse(422, 'wrong-day', `A response is sent within ${LONGEST_FILLING} days of its beginning. Reload the page to begin again.`)
  const plan = planOf(release.definition)
  const unknown = Object.keys(sending.answers).filter(code => !plan.byCode.has(code) && !plan.groups.has(code))
  if (unknown.length > 0) refuse(422, 'unknown-question', 'The response answers questions that this form does not have; nothing was stored.', unknown.map(code => ({ path: code, sentence: `There is no question “${code}”.` })))
  const filled = fill(plan, sending.answers, sending.begunOn)
  const problems = allProblems(filled)
  if (problems.length > 0) refuse(422, 'wrong-answers', 'Some answers don’t fit; nothing was stored.', problems.map(p => ({ path: p.path, sentence: p.sentence })))
  return db.transaction(tx => store(tx, release.id, sending, filled))
}

async function store(db: Database, releaseId: string, sending: Sending, filled: Filled): Promise<{ sentAt: string }> {
  const [stored] = await db.insert(responses)
    .values({ releaseId, sendingKey: sending.key, begunOn: sending.begunOn, answers: answersInPlay(filled) })
    .onConflictDoNothing().returning({ id: responses.id, sentAt: responses.sentAt })
  // The same sending again, after a lost connection: it is stored already.
  if (!stored) return { sentAt: new Date().toISOString() }
  await claimFiles(db, releaseId, sending.key, stored.id, filesIn(filled))
  return { sentAt: stored.sentAt.toISOString() }
}

/** The responses to all releases of a form, the newest first, at most `most`. */
export async function responsesOf(db: Database, formId: string, most = 2_000) {
  const rows = await db.select({ id: responses.id, sentAt: responses.sentAt, begunOn: responses.begunOn, answers: responses.answers, release: releases.number })
    .from(responses).innerJoin(releases, eq(responses.releaseId, releases.id)).where(eq(releases.formId, formId)).orderBy(desc(responses.sentAt)).limit(most)
  return rows.map(r => ({ ...r, sentAt: r.sentAt.toISOString() }))
}

/** One response with the definition that it answers. */
export async function responseById(db: Database, id: string) {
  const [row] = await db.select({ id: responses.id, sentAt: responses.sentAt, begunOn: responses.begunOn, answers: responses.answers, release: releases.number, definition: releases.definition, formId: forms.id })
    .from(responses).innerJoin(releases, eq(responses.releaseId, releases.id)).innerJoin(forms, eq(releases.formId, forms.id)).where(eq(responses.id, id))
  return row ? { ...row, sentAt: row.sentAt.toISOString() } : refuse(404, 'not-found', 'There is no such response.')
}
