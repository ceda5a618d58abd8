import { and, count, inArray, isNull } from 'drizzle-orm'
import type { Database } from '../store/database'
import { suggestions } from '../store/schema'

/** How many suggestions wait for a decision, by form. */
export async function countOpenSuggestions(
  db: Database,
  formIds: readonly string[],
): Promise<Map<string, number>> {
  const rows = await db
    .select({ formId: suggestions.formId, number: count() })
    .from(suggestions)
    .where(and(inArray(suggestions.formId, [...formIds]), isNull(suggestions.outcome)))
    .groupBy(suggestions.formId)
  return new Map(rows.map(row => [row.formId, row.number]))
}
