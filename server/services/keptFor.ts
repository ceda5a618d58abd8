import { eq } from 'drizzle-orm'
import type { Retention } from '../../shared/api/workbench'
import type { Database } from '../store/database'
import { retentions } from '../store/schema'

/** How long the responses of a form are kept; null for always. */
export async function loadRetention(db: Database, formId: string): Promise<Retention | null> {
  const [row] = await db
    .select({ months: retentions.months, act: retentions.act })
    .from(retentions)
    .where(eq(retentions.formId, formId))
  return row ?? null
}

/** Says how long the responses of a form are kept from now on; null for always. */
export async function saveRetention(
  db: Database,
  formId: string,
  retention: Retention | null,
): Promise<void> {
  if (retention === null) {
    await db.delete(retentions).where(eq(retentions.formId, formId))
    return
  }
  await db
    .insert(retentions)
    .values({ formId, ...retention })
    .onConflictDoUpdate({ target: retentions.formId, set: retention })
}
