import { sql } from 'drizzle-orm'
import type { JobState } from '../../shared/api/session'
import type { Database } from '../store/database'
import { JOBS_SCHEMA } from './jobs'

/** How the background work stands, whichever process did it: when each job was done last, and whether the last try failed. */
export async function listJobStates(db: Database): Promise<JobState[]> {
  const [begun] = await db
    .select({ is: sql<boolean>`to_regclass(${`${JOBS_SCHEMA}.job`}) is not null` })
    .from(sql`(select 1) as one`)
  if (!begun?.is) return []
  const rows = await db
    .select({
      name: sql<string>`name`,
      doneAt: sql<
        string | null
      >`to_char(max(completed_on) filter (where state = 'completed') at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`,
      failedLast: sql<boolean>`coalesce(max(created_on) filter (where state in ('failed', 'retry')) > coalesce(max(created_on) filter (where state = 'completed'), '-infinity'), false)`,
    })
    .from(sql`${sql.identifier(JOBS_SCHEMA)}.job`)
    .where(sql`name not like '\\_\\_%'`)
    .groupBy(sql`name`)
    .orderBy(sql`name`)
  return rows
}
