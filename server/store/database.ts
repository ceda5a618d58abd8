import { chmod, mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { sql } from 'drizzle-orm'
import { drizzle as drizzleNode } from 'drizzle-orm/node-postgres'
import { migrate as migrateNode } from 'drizzle-orm/node-postgres/migrator'
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core'
import { drizzle as drizzleLite } from 'drizzle-orm/pglite'
import { migrate as migrateLite } from 'drizzle-orm/pglite/migrator'
import pg from 'pg'
import { lockFolder } from './folderLock'
import * as schema from './schema'
import { openLite } from './syncedFiles'

export type Database = PgDatabase<PgQueryResultHKT, typeof schema>

/** An open store: the database, and how it is closed. */
export interface Store {
  db: Database
  /** Runs a text of queries as it is; the rows are those of the last one. For the background jobs, which bring their own. */
  execute: (text: string, values?: unknown[]) => Promise<{ rows: unknown[] }>
  close: () => Promise<void>
}

/** The files of the migrations, by path below their folder. */
export type MigrationFiles = Readonly<Record<string, string>>

/** The key of the advisory lock under which servers that share a database migrate and seed, one after the other. */
const START_LOCK = 7_204_116

/**
 * Opens PostgreSQL where an address is given, else the embedded database in a folder; applies the migrations; then runs
 * `first`, which fills an empty store.
 * @throws when another process has the folder open
 */
export async function openStore(options: {
  url: string | undefined
  folder: string
  migrations: MigrationFiles
  first: (db: Database) => Promise<void>
}): Promise<Store> {
  const migrationsFolder = await unpack(options.migrations)
  try {
    return options.url
      ? await openServer(options.url, migrationsFolder, options.first)
      : await openEmbedded(options.folder, migrationsFolder, options.first)
  } finally {
    await rm(migrationsFolder, { recursive: true, force: true })
  }
}

/** Milliseconds after which a connection or a statement is given up. */
const CONNECT_WITHIN = 5_000
const STATEMENT_WITHIN = 30_000

/** Connects to a PostgreSQL server and changes nothing there. */
export function connectServer(url: string): Store & { pool: pg.Pool } {
  const pool = new pg.Pool({
    connectionString: url,
    max: 10,
    connectionTimeoutMillis: CONNECT_WITHIN,
    statement_timeout: STATEMENT_WITHIN,
    idle_in_transaction_session_timeout: STATEMENT_WITHIN,
  })
  // A connection that waits in the pool may be ended by the database: the next query opens another one.
  pool.on('error', error => console.error(`A connection to the database ended: ${error.message}`))
  return {
    pool,
    db: drizzleNode(pool, { schema }),
    execute: async (text, values) => {
      const result = await pool.query(text, values)
      return { rows: lastOf(result)?.rows ?? [] }
    },
    close: () => pool.end(),
  }
}

/** Of several queries in one text the last. */
const lastOf = (results: pg.QueryResult | pg.QueryResult[]) => [results].flat().at(-1)

async function openServer(
  url: string,
  migrationsFolder: string,
  first: (db: Database) => Promise<void>,
): Promise<Store> {
  const { pool, ...store } = connectServer(url)
  const client = await pool.connect()
  try {
    await client.query('select pg_advisory_lock($1)', [START_LOCK])
    const own = drizzleNode(client, { schema })
    await migrateNode(own, { migrationsFolder })
    await first(own)
    await client.query('select pg_advisory_unlock($1)', [START_LOCK])
  } finally {
    client.release()
  }
  return store
}

/** The data folder is its owner's alone. */
const PRIVATE_FOLDER = 0o700

async function openEmbedded(
  folder: string,
  migrationsFolder: string,
  first: (db: Database) => Promise<void>,
): Promise<Store> {
  const storeFolder = join(folder, 'store')
  await mkdir(storeFolder, { recursive: true, mode: PRIVATE_FOLDER })
  for (const path of [folder, storeFolder]) await chmod(path, PRIVATE_FOLDER)
  const unlock = await lockFolder(folder)
  const lite = openLite(storeFolder)
  const db = drizzleLite(lite, { schema })
  await migrateLite(db, { migrationsFolder })
  await first(db)
  await db.execute(sql`select 1`)
  return {
    db,
    execute: async (text, values) => {
      if (values && values.length > 0) return lite.query(text, values)
      return (await lite.exec(text)).at(-1) ?? { rows: [] }
    },
    close: async () => {
      await lite.close()
      await unlock()
    },
  }
}

async function unpack(files: MigrationFiles): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'tobbin-migrations-'))
  for (const [name, text] of Object.entries(files)) {
    const path = join(folder, name)
    await mkdir(dirname(path), { recursive: true })
    await writeFile(path, text)
  }
  return folder
}
