import { sql } from 'drizzle-orm'
import type { Database } from '../../store/database'

/** The tables of the store, each after those that its rows refer to. */
export async function listTables(db: Database): Promise<string[]> {
  const found = await db
    .select({ name: sql<string>`table_name::text` })
    .from(sql`information_schema.tables`)
    .where(sql`table_schema = 'public' and table_type = 'BASE TABLE'`)
    .orderBy(sql`table_name`)
  const references = await db
    .select({ child: sql<string>`a.relname::text`, parent: sql<string>`b.relname::text` })
    .from(
      sql`pg_constraint c join pg_class a on a.oid = c.conrelid join pg_class b on b.oid = c.confrelid
          join pg_namespace n on n.oid = c.connamespace`,
    )
    .where(sql`c.contype = 'f' and n.nspname = 'public' and c.conrelid <> c.confrelid`)
  return inOrder(
    found.map(f => f.name),
    references,
  )
}

function inOrder(names: readonly string[], references: readonly { child: string; parent: string }[]) {
  const ordered: string[] = []
  while (ordered.length < names.length) {
    const open = names.filter(name => !ordered.includes(name))
    const ready = open.filter(name => references.every(r => r.child !== name || ordered.includes(r.parent)))
    if (ready.length === 0) throw new Error('Tables of the store refer to each other in a circle.')
    ordered.push(...ready)
  }
  return ordered
}

/** How many migrations were applied to the store. */
export async function countMigrations(db: Database): Promise<number> {
  const [row] = await db
    .select({ number: sql<number>`count(*)`.mapWith(Number) })
    .from(sql`drizzle.__drizzle_migrations`)
  return row?.number ?? 0
}
