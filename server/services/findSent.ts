import { and, eq } from 'drizzle-orm'
import type { Database } from '../store/database'
import { responses } from '../store/schema'

/** The response that was sent to a release under a key; null for none. */
export async function findSent(
  db: Database,
  releaseId: string,
  key: string,
): Promise<typeof responses.$inferSelect | null> {
  const [found] = await db
    .select()
    .from(responses)
    .where(and(eq(responses.releaseId, releaseId), eq(responses.sendingKey, key)))
  return found ?? null
}
