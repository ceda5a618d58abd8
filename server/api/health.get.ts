import { sql } from 'drizzle-orm'
import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { listJobStates } from '../jobs/states'

/** For those who watch the server: nothing of what it keeps is told. */
export default openRoute(API.loadHealth, async ({ db }) => {
  const [row] = await db
    .select({ number: sql<number>`count(*)`.mapWith(Number) })
    .from(sql`drizzle.__drizzle_migrations`)
  return { store: 'open' as const, migrations: row?.number ?? 0, jobs: await listJobStates(db) }
})
