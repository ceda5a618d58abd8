import { createReadStream } from 'node:fs'
import { createGunzip } from 'node:zlib'
import { count, sql } from 'drizzle-orm'
import { extract } from 'tar-stream'
import { openStore, type Database, type MigrationFiles } from '../../store/database'
import { keepFile, receiveFile } from '../../store/fileFolder'
import { forms, users } from '../../store/schema'
import { Head, HEAD, readEntryName } from './format'
import { listTables } from './tables'

/** Rows that are stored at once. */
const AT_ONCE = 200
const JOURNAL = 'meta/_journal.json'

/** A backup that can't be brought back: the sentence says why. */
export class RestoreError extends Error {}

/**
 * Brings a backup back into an empty store: as the store was then, and from there to what this version of Tobbin needs.
 * @throws RestoreError when the file is no backup, is damaged or newer, or when the store is not empty: then it is as it was
 */
export async function restoreBackup(
  path: string,
  store: { url: string | undefined; folder: string; migrations: MigrationFiles },
): Promise<Head> {
  try {
    const head = await readHead(path)
    await fillEmptyStore(path, head, store)
    return head
  } catch (error) {
    if (error instanceof Error && damages.has(error))
      throw new RestoreError(`${path} is no backup, or is damaged: ${error.message}.`)
    throw error
  }
}

async function fillEmptyStore(
  path: string,
  head: Head,
  store: { url: string | undefined; folder: string; migrations: MigrationFiles },
) {
  const first = () => Promise.resolve()
  const then = await openStore({ ...store, migrations: migrationsUpTo(store.migrations, head), first })
  try {
    await refuseFilled(then.db)
    await then.db.transaction(tx => fillStore(tx, path, head))
  } finally {
    await then.close()
  }
  await (await openStore({ ...store, first })).close()
}

async function refuseFilled(db: Database) {
  for (const table of [users, forms]) {
    const [found] = await db.select({ number: count() }).from(table)
    if (Number(found?.number ?? 0) > 0)
      throw new RestoreError('The store is not empty. Give an empty data folder or database.')
  }
}

/** The migrations that the store had when the backup was made. */
function migrationsUpTo(migrations: MigrationFiles, head: Head): MigrationFiles {
  const journal = JSON.parse(migrations[JOURNAL] ?? '{}')
  const { entries }: { entries: unknown[] } = journal
  if (entries.length < head.migrations)
    throw new RestoreError('The backup was made by a newer Tobbin than this one.')
  return {
    ...migrations,
    [JOURNAL]: JSON.stringify({ ...journal, entries: entries.slice(0, head.migrations) }),
  }
}

/** The bytes of an entry as they come. */
type Content = AsyncGenerator<Uint8Array>

/** Errors that an archive itself gave when it was read. */
const damages = new WeakSet<Error>()

/** The entries of an archive, one after the other; each has to be read to its end. */
async function* entriesOf(path: string): AsyncGenerator<{ name: string; content: Content }> {
  const archive = extract()
  const unpacked = createGunzip()
  const source = createReadStream(path)
  const stop = (error: Error) => {
    damages.add(error)
    archive.destroy(error)
  }
  for (const stream of [source, unpacked]) stream.on('error', stop)
  archive.on('error', (error: Error) => damages.add(error))
  source.pipe(unpacked).pipe(archive)
  try {
    for await (const entry of archive) yield { name: entry.header.name, content: bytesOf(entry) }
  } finally {
    source.destroy()
  }
}

/** What an entry holds. Cut off in the midst of one, its own stream may say so before the archive does. */
async function* bytesOf(entry: AsyncIterable<unknown>): Content {
  try {
    for await (const piece of entry) if (piece instanceof Uint8Array) yield piece
  } catch (error) {
    if (error instanceof Error) damages.add(error)
    throw error
  }
}

async function readHead(path: string): Promise<Head> {
  for await (const { name, content } of entriesOf(path)) {
    const read = name === HEAD ? Head.safeParse(await readJson(content)) : null
    if (read?.success) return read.data
    break
  }
  throw new RestoreError(`${path} is no backup, or is damaged.`)
}

async function readJson(content: Content): Promise<unknown> {
  const pieces: Uint8Array[] = []
  for await (const piece of content) pieces.push(piece)
  try {
    return JSON.parse(Buffer.concat(pieces).toString('utf8'))
  } catch {
    return null // told by whoever asked for it
  }
}

async function fillStore(db: Database, path: string, head: Head) {
  const rows = new Map<string, number>()
  let files = 0
  const tables = await listTables(db)
  for await (const { name, content } of entriesOf(path)) {
    const entry = readEntryName(name)
    if (entry?.kind === 'table' && tables.includes(entry.name))
      rows.set(entry.name, await fillTable(db, entry.name, content))
    else if (entry?.kind === 'file') {
      await restoreFile(entry.name, content)
      files += 1
    } else for await (const _ of content);
  }
  const isWhole = files === head.files && head.tables.every(t => (rows.get(t.name) ?? 0) === t.rows)
  if (!isWhole) throw new RestoreError(`${path} is damaged: not everything that it speaks of is in it.`)
}

async function fillTable(db: Database, table: string, content: Content): Promise<number> {
  const name = sql.identifier(table)
  const columns = sql.join(await listColumns(db, table), sql`, `)
  let waiting: string[] = []
  let rows = 0
  const store = async () => {
    await db.execute(
      sql`insert into ${name} (${columns}) select ${columns} from json_populate_recordset(null::${name}, ${`[${waiting.join()}]`}::json)`,
    )
    rows += waiting.length
    waiting = []
  }
  for await (const line of linesOf(content)) {
    waiting.push(line)
    if (waiting.length >= AT_ONCE) await store()
  }
  if (waiting.length > 0) await store()
  return rows
}

/** The columns of a table that hold what they are given; the others are worked out by the store. */
async function listColumns(db: Database, table: string) {
  const found = await db
    .select({ name: sql<string>`column_name::text` })
    .from(sql`information_schema.columns`)
    .where(sql`table_schema = 'public' and table_name = ${table} and is_generated = 'NEVER'`)
  return found.map(column => sql.identifier(column.name))
}

async function* linesOf(content: Content): AsyncGenerator<string> {
  const decoder = new TextDecoder('utf-8', { fatal: true })
  let begun = ''
  for await (const piece of content) {
    const lines = (begun + decoder.decode(piece, { stream: true })).split('\n')
    begun = lines.pop() ?? ''
    yield* lines
  }
}

async function restoreFile(id: string, content: Content) {
  const incoming = await receiveFile(async write => {
    for await (const piece of content) await write(piece)
  })
  await keepFile(incoming, id)
}
