import { and, asc, desc, eq, gt, lte } from 'drizzle-orm'
import type { Form } from '../../core/form/definition'
import { applyEdits } from '../../core/form/edits'
import type { Change, History } from '../../shared/api/forms'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { changes, users } from '../store/schema'
import { loadFormRow } from './drafts'

/** Saves that are fetched at once, and those that the history shows, at most. */
const MOST_CHANGES = 500
const MOST_SAVES = 1_000
/** Edits of a save that are told one by one. */
const MOST_EDITS = 20
/** Who saved, where the person is not known any more. */
const NOBODY = 'somebody'

/** The saves after a revision, oldest first: what somebody else has changed meanwhile. */
export async function loadChanges(
  db: Database,
  id: string,
  since: number,
  designerId: string,
): Promise<Change[]> {
  const rows = await db
    .select({ revision: changes.revision, edits: changes.edits, by: users.name, userId: changes.userId })
    .from(changes)
    .leftJoin(users, eq(changes.userId, users.id))
    .where(and(eq(changes.formId, id), gt(changes.revision, since)))
    .orderBy(asc(changes.revision))
    .limit(MOST_CHANGES)
  return rows.map(({ userId, by, ...change }) => ({
    ...change,
    by: by ?? NOBODY,
    own: userId === designerId,
  }))
}

/** Every save of a draft, the newest first: when, by whom, and what the last ones did. */
export async function loadHistory(db: Database, id: string): Promise<History> {
  const { begun, createdAt } = await loadFormRow(db, id)
  const rows = await db
    .select({ revision: changes.revision, at: changes.at, by: users.name, edits: changes.edits })
    .from(changes)
    .leftJoin(users, eq(changes.userId, users.id))
    .where(eq(changes.formId, id))
    .orderBy(desc(changes.revision))
    .limit(MOST_SAVES)
  return {
    canLook: begun !== null,
    begunAt: createdAt.toISOString(),
    saves: rows.map(r => ({
      revision: r.revision,
      at: r.at.toISOString(),
      by: r.by ?? NOBODY,
      edits: r.edits.slice(0, MOST_EDITS).map(e => ({ do: e.do, what: 'what' in e ? e.what : '' })),
    })),
  }
}

/** The draft as it was after a save; 0 is the beginning. */
export async function loadState(db: Database, id: string, revision: number): Promise<{ form: Form }> {
  const row = await loadFormRow(db, id)
  if (row.begun === null)
    return refuse(
      404,
      'no-beginning',
      'The beginning of this form is not kept, so earlier states can’t be looked at.',
    )
  if (revision > row.revision) return refuse(404, 'not-found', 'There is no such state.')
  const saves = await db
    .select({ edits: changes.edits })
    .from(changes)
    .where(and(eq(changes.formId, id), lte(changes.revision, revision)))
    .orderBy(asc(changes.revision))
  const edits = saves.flatMap(s => s.edits)
  return { form: applyEdits(row.begun, edits).form }
}
