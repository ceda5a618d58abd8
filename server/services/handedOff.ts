import { and, inArray, isNotNull, isNull } from 'drizzle-orm'
import type { Database } from '../store/database'
import { turns } from '../store/schema'

/** The codes of the turns of some responses that were taken and not given back, by response. */
export async function loadHandedOff(db: Database, ids: readonly string[]): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>()
  if (ids.length === 0) return found
  const rows = await db
    .select({ id: turns.responseId, turn: turns.turn })
    .from(turns)
    .where(and(inArray(turns.responseId, [...ids]), isNotNull(turns.handedOffAt), isNull(turns.givenBackAt)))
  for (const { id, turn } of rows) found.set(id, [...(found.get(id) ?? []), turn])
  return found
}
