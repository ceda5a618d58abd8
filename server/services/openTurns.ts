import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import { turnName, turnOf } from '../../core/parties/turns'
import type { TurnToTake } from '../../shared/api/responses'
import type { Designer } from '../../shared/api/session'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'
import { listPowers } from './people/rights'

/** Turns that are shown at most. */
const MOST_TURNS = 200

/** The open turns that somebody may take: of forms in which they may act, those addressed to them or to whoever has the link. */
export async function listOpenTurns(db: Database, { id, email }: Designer): Promise<TurnToTake[]> {
  const powers = await listPowers(db, id)
  const formIds = [...powers].filter(([, own]) => own.has('act')).map(([formId]) => formId)
  if (formIds.length === 0) return []
  const isMine = sql<boolean>`${turns.to} @> ${JSON.stringify([email])}::jsonb`
  const rows = await db
    .select({
      token: turns.token,
      code: turns.turn,
      openedAt: turns.openedAt,
      remark: turns.remark,
      isMine,
      releaseId: releases.id,
    })
    .from(turns)
    .innerJoin(responses, and(eq(turns.responseId, responses.id), eq(turns.turn, responses.turn)))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(
      and(
        inArray(releases.formId, formIds),
        isNull(turns.handedOffAt),
        sql`(${isMine} or ${turns.to} = '[]'::jsonb)`,
      ),
    )
    .orderBy(desc(isMine), desc(turns.openedAt))
    .limit(MOST_TURNS)
  const definitions = await definitionsOf(db, [...new Set(rows.map(r => r.releaseId))])
  return rows.flatMap(({ code, openedAt, releaseId, ...row }) => {
    const form = definitions.get(releaseId)
    const turn = form ? turnOf(form, code) : null
    return form && turn
      ? [{ ...row, form: form.title, name: turnName(form, turn), openedAt: openedAt.toISOString() }]
      : []
  })
}

async function definitionsOf(db: Database, ids: readonly string[]) {
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ id: releases.id, definition: releases.definition })
    .from(releases)
    .where(inArray(releases.id, [...ids]))
  return new Map(rows.map(r => [r.id, r.definition]))
}
