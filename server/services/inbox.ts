import { and, asc, desc, eq, ilike, inArray, isNotNull, isNull, lt, or, sql, type SQL } from 'drizzle-orm'
import { openNamesOf, turnNameOf } from '../../core/parties/turns'
import type { Form } from '../../core/form/definition'
import type { Inbox, InboxQuery, TurnInInbox } from '../../shared/api/inbox'
import type { Designer } from '../../shared/api/session'
import type { Database } from '../store/database'
import { forms, releases, responses, turns } from '../store/schema'
import { isoToday } from './calendar'
import { listPowers } from './people/rights'
import { loadDefinitions } from './releases'
import { asPattern, hasNumber, isOpenTurn } from './turnSearch'

/**
 * The turns of somebody: those that wait for them, for a team that they are of or, in forms in which they may act, for whoever has the link; or
 * those addressed to them that were handed on.
 */
export async function listInbox(db: Database, { id, email }: Designer, query: InboxQuery): Promise<Inbox> {
  const powers = await listPowers(db, id)
  const acting = [...powers].filter(([, own]) => own.has('act')).map(([formId]) => formId)
  const isMine = sql<boolean>`(${turns.to} @> ${JSON.stringify([email])}::jsonb)`
  const which =
    query.state === 'waiting' ? waiting(isMine, acting) : and(isNotNull(turns.handedOffAt), isMine)
  const order =
    query.state === 'waiting'
      ? [desc(isMine), sql`${turns.dueOn} asc nulls last`, asc(turns.openedAt)]
      : [desc(turns.handedOffAt)]
  const rows = await db
    .select({
      id: turns.id,
      code: turns.turn,
      to: turns.to,
      openedAt: turns.openedAt,
      handedOffAt: turns.handedOffAt,
      begunAt: turns.draftAt,
      begunBy: turns.draftBy,
      dueOn: turns.dueOn,
      remark: turns.remark,
      isMine,
      now: responses.turn,
      isWithdrawn: sql<boolean>`${responses.withdrawnAt} is not null`,
      response: responses.number,
      releaseId: responses.releaseId,
      count: sql<number>`(count(*) over ())::int`,
    })
    .from(turns)
    .innerJoin(responses, eq(turns.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .innerJoin(forms, eq(releases.formId, forms.id))
    .where(and(which, isNull(responses.binnedAt), filtered(query, isMine), found(query.search.trim())))
    .orderBy(...order, turns.id)
    .limit(query.size)
    .offset((query.page - 1) * query.size)
  const definitions = await loadDefinitions(db, [...new Set(rows.map(r => r.releaseId))])
  return {
    count: rows[0]?.count ?? 0,
    rows: rows.map(row => shownRow(row, definitions.get(row.releaseId) ?? null)),
  }
}

const waiting = (isMine: SQL<boolean>, acting: readonly string[]): SQL | undefined =>
  and(isOpenTurn, or(isMine, and(sql`${turns.to} = '[]'::jsonb`, inArray(releases.formId, [...acting]))))

function filtered({ only }: InboxQuery, isMine: SQL<boolean>): SQL | undefined {
  if (only === 'overdue') return lt(turns.dueOn, isoToday())
  return only === 'mine' ? isMine : undefined
}

/** Looks in the form's title, the response's number and the remark: never in answers, which not everybody may see. */
function found(search: string): SQL | undefined {
  if (search === '') return undefined
  const pattern = asPattern(search)
  return or(ilike(forms.title, pattern), ilike(turns.remark, pattern), hasNumber(search))
}

interface Row {
  id: string
  code: string
  to: readonly string[]
  openedAt: Date
  handedOffAt: Date | null
  begunAt: Date | null
  begunBy: string | null
  dueOn: string | null
  remark: string | null
  isMine: boolean
  now: string | null
  isWithdrawn: boolean
  response: number
}

function shownRow(row: Row, form: Form | null): TurnInInbox {
  const { id, code, to, remark, isMine, now, dueOn, response } = row
  return {
    id,
    form: form?.title ?? '',
    response,
    name: turnNameOf(form, code),
    openedAt: row.openedAt.toISOString(),
    handedOffAt: row.handedOffAt?.toISOString() ?? null,
    begunAt: row.begunAt?.toISOString() ?? null,
    begunBy: row.begunBy ?? '',
    dueOn,
    isOverdue: dueOn !== null && dueOn < isoToday(),
    remark,
    waitsFor: waitsFor(isMine, to),
    now: now === null ? null : openNamesOf(form, now),
    isWithdrawn: row.isWithdrawn,
  }
}

function waitsFor(isMine: boolean, to: readonly string[]): TurnInInbox['waitsFor'] {
  if (!isMine) return 'anybody'
  return to.length > 1 ? 'team' : 'you'
}
