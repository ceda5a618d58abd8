import { and, asc, count, eq, gt, isNull } from 'drizzle-orm'
import type { z } from 'zod'
import type { ApiQuery, ApiResponse, ApiResponses, ApiSending, ApiSent } from '../../shared/api/accessKeys'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { openings, releases, responses } from '../store/schema'
import { isoToday } from './calendar'
import { submitAnswers } from './submitAnswers'

const columns = {
  number: responses.number,
  begunOn: responses.begunOn,
  sentAt: responses.sentAt,
  correctedAt: responses.correctedAt,
  withdrawnAt: responses.withdrawnAt,
  turn: responses.turn,
  unpaid: responses.unpaid,
  answers: responses.answers,
  version: releases.number,
}
type Row = Pick<typeof responses.$inferSelect, Exclude<keyof typeof columns, 'version'>> & { version: number }

const isOf = (formId: string) => and(eq(releases.formId, formId), isNull(responses.binnedAt))

function endedState({ withdrawnAt, unpaid }: Row) {
  if (withdrawnAt !== null) return 'withdrawn'
  return unpaid ? 'to be paid' : 'done'
}

function told(row: Row) {
  const { number, version, begunOn, sentAt, correctedAt, turn, answers } = row
  return {
    ...{ number, version, begunOn, answers },
    state: turn === null ? endedState(row) : 'in progress',
    sentAt: sentAt.toISOString(),
    correctedAt: correctedAt?.toISOString() ?? null,
  } satisfies z.output<typeof ApiResponse>
}

/** A page of the responses of a form as programs read them, the oldest first. */
export async function listForPrograms(
  db: Database,
  formId: string,
  { page, size, after }: z.output<typeof ApiQuery>,
): Promise<z.output<typeof ApiResponses>> {
  const where = and(isOf(formId), gt(responses.number, after))
  const from = db.select(columns).from(responses).innerJoin(releases, eq(responses.releaseId, releases.id))
  const rows = await from
    .where(where)
    .orderBy(asc(responses.number))
    .limit(size)
    .offset((page - 1) * size)
  const [found] = await db
    .select({ number: count() })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(where)
  return { count: Number(found?.number ?? 0), responses: rows.map(told) }
}

/** One response of a form by its number. */
export async function loadForPrograms(
  db: Database,
  formId: string,
  number: number,
): Promise<z.output<typeof ApiResponse>> {
  const [row] = await db
    .select(columns)
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(isOf(formId), eq(responses.number, number)))
  return row ? told(row) : refuse(404, 'not-found', `There is no response with the number ${number}.`)
}

/** Takes a response that a program sends in, as one that comes by the address of the form: its rules, its times and its limits hold. */
export async function sendForPrograms(
  db: Database,
  formId: string,
  { key, version, answers }: z.output<typeof ApiSending>,
): Promise<z.output<typeof ApiSent>> {
  const [opening] = await db
    .select({ token: openings.token })
    .from(openings)
    .where(eq(openings.formId, formId))
  if (!opening) return refuse(409, 'not-open-yet', 'This form has no version yet that takes responses.')
  const sending = { release: version, key, begunOn: isoToday(), answers }
  const { number, sentAt } = await submitAnswers(db, { token: opening.token, caller: null }, sending)
  return { number, sentAt }
}
