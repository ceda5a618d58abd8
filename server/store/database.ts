import { createHash } from 'node:crypto'
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { createServer, type Server } from 'node:net'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { sql } from 'drizzle-orm'
import { drizzle as drizzleNode } from 'drizzle-orm/node-postgres'
import { migrate as migrateNode } from 'drizzle-orm/node-postgres/migrator'
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core'
import { drizzle as drizzleLite } from 'drizzle-orm/pglite'
import { migrate as migrateLite } from 'drizzle-orm/pglite/migrator'
import pg from 'pg'
import * as schema from './schema'

export type Database = PgDatabase<PgQueryResultHKT, typeof schema>

/** An open store: the database, and how it is closed. */
export interface Store {
  db: Database
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

async function openServer(
  url: string,
  migrationsFolder: string,
  first: (db: Database) => Promise<void>,
): Promise<Store> {
  const pool = new pg.Pool({ connectionString: url, max: 10 })
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
  return { db: drizzleNode(pool, { schema }), close: () => pool.end() }
}

async function openEmbedded(
  folder: string,
  migrationsFolder: string,
  first: (db: Database) => Promise<void>,
): Promise<Store> {
  const lock = await lockFolder(resolve(folder))
  await mkdir(folder, { recursive: true })
  const lite = new PGlite(join(folder, 'store'))
  const db = drizzleLite(lite, { schema })
  await migrateLite(db, { migrationsFolder })
  await first(db)
  await db.execute(sql`select 1`)
  return {
    db,
    close: async () => {
      await lite.close()
      await new Promise<void>(done => (lock ? lock.close(() => done()) : done()))
    },
  }
}

/** Two processes on one embedded database lose rows silently; a socket name of the folder keeps the second out. */
function lockFolder(folder: string): Promise<Server | null> {
  if (process.platform !== 'linux') return Promise.resolve(null)
  const name = `\0tobbin-${createHash('sha256').update(folder).digest('hex').slice(0, 24)}`
  return new Promise((done, failed) => {
    const server = createServer()
    server.once('error', () =>
      failed(
        new Error(
          `The data folder “${folder}” is open in another Tobbin. Stop that one first, or set NUXT_DATA_FOLDER to another folder.`,
        ),
      ),
    )
    server.listen(name, () => {
      server.unref()
      done(server)
    })
  })
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
