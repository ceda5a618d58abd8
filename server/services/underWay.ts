import { and, desc, eq, isNotNull, sql } from 'drizzle-orm'
import { turnChange } from '../../core/parties/turnChange'
import { openNamesOf } from '../../core/parties/turns'
import type { TurnUnderWay } from '../../shared/api/releases'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { loadFormRow } from './drafts'
import { loadDefinitions } from './releases'

/** The responses in progress of a form: how many are at which turn of which release, and what the draft would make of the turn. */
export async function listUnderWay(db: Database, formId: string): Promise<TurnUnderWay[]> {
  const rows = await db
    .select({
      releaseId: responses.releaseId,
      release: releases.number,
      turn: responses.turn,
      count: sql<number>`count(*)::int`,
      since: sql<Date>`min(${responses.sentAt})`.mapWith(responses.sentAt),
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, formId), isNotNull(responses.turn)))
    .groupBy(responses.releaseId, releases.number, responses.turn)
    .orderBy(desc(releases.number), responses.turn)
  if (rows.length === 0) return []
  const { draft } = await loadFormRow(db, formId)
  const definitions = await loadDefinitions(db, [...new Set(rows.map(r => r.releaseId))])
  return rows.flatMap(({ releaseId, release, turn: code, count, since }): TurnUnderWay[] => {
    const form = definitions.get(releaseId)
    if (!form || code === null) return []
    const name = openNamesOf(form, code)
    return [{ release, name, count, since: since.toISOString(), change: turnChange(form, draft, code) }]
  })
}
