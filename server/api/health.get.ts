import { sql } from 'drizzle-orm'
import { API } from '../../shared/api/endpoints'
import { openRoute } from '../http/route'
import { lastSweep } from '../services/sweep'

/** For those who watch the server: nothing of what it keeps is told. */
export default openRoute(API.loadHealth, async ({ db }) => {
  const [row] = await db
    .select({ number: sql<number>`count(*)`.mapWith(Number) })
    .from(sql`drizzle.__drizzle_migrations`)
  return { store: 'open' as const, migrations: row?.number ?? 0, sweptAt: lastSweep()?.toISOString() ?? null }
})
