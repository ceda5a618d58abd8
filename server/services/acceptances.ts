import { and, eq } from 'drizzle-orm'
import type { Accepted } from '../../core/prove/acceptance'
import type { Designer } from '../../shared/api/session'
import type { Database } from '../store/database'
import { acceptances } from '../store/schema'
import { loadFormRow } from './drafts'

/** Accepts a risk of a draft in somebody's name, or takes the acceptance back where there is no reason. */
export async function acceptRisk(
  db: Database,
  formId: string,
  designer: Designer,
  { key, basis, reason }: { key: string; basis: string; reason: string },
): Promise<Accepted[]> {
  await loadFormRow(db, formId)
  if (reason === '') {
    await db.delete(acceptances).where(and(eq(acceptances.formId, formId), eq(acceptances.key, key)))
    return listAcceptances(db, formId)
  }
  const values = { basis, reason, by: designer.name, at: new Date() }
  await db
    .insert(acceptances)
    .values({ formId, key, ...values })
    .onConflictDoUpdate({ target: [acceptances.formId, acceptances.key], set: values })
  return listAcceptances(db, formId)
}

/** The risks of a draft that were accepted. */
export async function listAcceptances(db: Database, formId: string): Promise<Accepted[]> {
  const rows = await db.select().from(acceptances).where(eq(acceptances.formId, formId))
  return rows.map(({ key, basis, reason, by, at }) => ({ key, basis, reason, by, at: at.toISOString() }))
}
