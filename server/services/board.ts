import { and, asc, desc, eq, ilike, inArray, isNotNull, lt, or, sql, type SQL } from 'drizzle-orm'
import type { Form } from '../../core/form/definition'
import { turnNameOf, turnOf } from '../../core/parties/turns'
import type { Board, BoardLane, BoardQuery, BoardRow } from '../../shared/api/board'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'
import { isoToday } from './calendar'
import { asPattern, hasNumber, isOpenTurn } from './turnSearch'
import { loadDefinitions } from './releases'

type Definitions = ReadonlyMap<string, Form>

/** The responses in progress of a form: those that wait longest first, and how many are at each turn. */
export async function loadBoard(db: Database, formId: string, query: BoardQuery): Promise<Board> {
  const isOfForm = and(eq(releases.formId, formId), isOpenTurn)
  const rows = await db
    .select({
      row: turns,
      number: responses.number,
      release: releases.number,
      releaseId: releases.id,
      count: sql<number>`(count(*) over ())::int`,
    })
    .from(turns)
    .innerJoin(responses, eq(turns.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(isOfForm, asked(query)))
    .orderBy(sql`${turns.dueOn} asc nulls last`, asc(turns.openedAt), turns.id)
    .limit(query.size)
    .offset((query.page - 1) * query.size)
  const definitions = await loadDefinitions(db, [...new Set(rows.map(r => r.releaseId))])
  const earlier = await listTaken(
    db,
    rows.map(r => r.row.responseId),
  )
  return {
    lanes: await listLanes(db, isOfForm),
    count: rows[0]?.count ?? 0,
    rows: rows.map(found => {
      const form = definitions.get(found.releaseId) ?? null
      return shownRow(found, form, earlier.get(found.row.responseId) ?? [])
    }),
  }
}

function asked({ turn, late, search }: BoardQuery): SQL | undefined {
  const words = search.trim()
  return and(
    turn === '' ? undefined : eq(turns.turn, turn),
    late ? lt(turns.dueOn, isoToday()) : undefined,
    words === '' ? undefined : or(hasNumber(words), ilike(sql`${turns.to}::text`, asPattern(words))),
  )
}

/** How many are at each turn, in the order of the newest version that has them. */
async function listLanes(db: Database, isOfForm: SQL | undefined): Promise<BoardLane[]> {
  const counted = await db
    .select({
      turn: turns.turn,
      releaseId: sql<string>`(array_agg(${releases.id} order by ${releases.number} desc))[1]`,
      count: sql<number>`count(*)::int`,
      late: sql<number>`(count(*) filter (where ${turns.dueOn} < ${isoToday()}))::int`,
      since: sql<Date>`min(${turns.openedAt})`.mapWith(turns.openedAt),
    })
    .from(turns)
    .innerJoin(responses, eq(turns.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(isOfForm)
    .groupBy(turns.turn)
  const definitions: Definitions = await loadDefinitions(db, [...new Set(counted.map(c => c.releaseId))])
  const lanes = counted.map(({ releaseId, since, ...lane }) => {
    const form = definitions.get(releaseId) ?? null
    const at = form?.turns?.findIndex(t => t.code === lane.turn) ?? -1
    return { at, lane: { ...lane, name: turnNameOf(form, lane.turn), since: since.toISOString() } }
  })
  return lanes.sort((a, b) => a.at - b.at).map(l => l.lane)
}

/** The turns that some responses have gone through, by response, the last one first. */
async function listTaken(db: Database, ids: readonly string[]): Promise<Map<string, string[]>> {
  const taken = new Map<string, string[]>()
  if (ids.length === 0) return taken
  const rows = await db
    .select({ responseId: turns.responseId, turn: turns.turn })
    .from(turns)
    .where(and(inArray(turns.responseId, [...ids]), isNotNull(turns.handedOffAt)))
    .orderBy(desc(turns.openedAt), desc(turns.handedOffAt))
  for (const { responseId, turn } of rows) {
    const before = taken.get(responseId) ?? []
    if (!before.includes(turn)) taken.set(responseId, [...before, turn])
  }
  return taken
}

interface Found {
  row: typeof turns.$inferSelect
  number: number
  release: number
}

function shownRow({ row, number, release }: Found, form: Form | null, taken: readonly string[]): BoardRow {
  const turn = form ? turnOf(form, row.turn) : null
  return {
    id: row.id,
    response: row.responseId,
    number,
    release,
    turn: row.turn,
    name: turnNameOf(form, row.turn),
    to: row.to,
    isByLink: turn?.by === 'link',
    openedAt: row.openedAt.toISOString(),
    begunAt: row.draftAt?.toISOString() ?? null,
    begunBy: row.draftBy ?? '',
    dueOn: row.dueOn,
    isLate: row.dueOn !== null && row.dueOn < isoToday(),
    remark: row.remark,
    earlier: taken
      .filter(code => code !== row.turn)
      .map(code => ({ turn: code, name: turnNameOf(form, code) })),
  }
}
