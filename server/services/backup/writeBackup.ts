import { createReadStream, createWriteStream } from 'node:fs'
import { mkdir, mkdtemp, open, rename, rm, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import { sql } from 'drizzle-orm'
import { pack, type Header, type Pack } from 'tar-stream'
import type { Database } from '../../store/database'
import { readFile, sizeOfFile } from '../../store/fileFolder'
import { files } from '../../store/schema'
import { fileEntry, HEAD, tableEntry, type Head } from './format'
import { countMigrations, listTables } from './tables'

/** Rows that are read at once. */
const AT_ONCE = 500

/**
 * Writes everything that the store keeps, as it is at one moment, and all files, into one file; while people go on working. It appears whole
 * under its name, or not at all, and is its owner's alone.
 * @returns how many rows and files it holds
 * @throws BackupError where it can't be written
 */
export async function writeBackup(db: Database, path: string): Promise<{ rows: number; files: number }> {
  try {
    await mkdir(dirname(path), { recursive: true, mode: 0o700 })
    const beside = await mkdtemp(`${path}.`)
    return await writeBeside(db, path, beside)
  } catch (error) {
    const reason = WHY_NOT.get(codeOf(error))
    if (reason === undefined) throw error
    throw new BackupError(`${path} can’t be written: ${reason}. There is no backup.`)
  }
}

/** A backup that can't be written: the sentence says why. */
export class BackupError extends Error {
  override name = 'BackupError'
}

const FORBIDDEN = 'its folder does not allow it'
const WHY_NOT: ReadonlyMap<unknown, string> = new Map([
  ['EACCES', FORBIDDEN],
  ['EPERM', FORBIDDEN],
  ['EROFS', FORBIDDEN],
  ['ENOTDIR', 'a part of its path is no folder'],
  ['EEXIST', 'a part of its path is no folder'],
  ['EISDIR', 'it is a folder'],
  ['ENOSPC', 'there is no room left'],
])
const codeOf = (error: unknown): unknown =>
  error instanceof Error && 'code' in error ? error.code : undefined

async function writeBeside(db: Database, path: string, beside: string) {
  try {
    const kept = await readTables(db, beside)
    const part = join(beside, 'archive')
    const head = await writeArchive(part, beside, kept)
    await syncFile(part)
    await rename(part, path)
    return { rows: head.tables.reduce((sum, t) => sum + t.rows, 0), files: head.files }
  } finally {
    await rm(beside, { recursive: true, force: true })
  }
}

/** What is said when a backup was made. */
export const sayBackup = (path: string, { rows, files: kept }: { rows: number; files: number }): string =>
  `${path} holds ${rows} rows and ${kept} files.`

/** What one look at the store gave: its tables, which stand in files, and the files that it knows. */
interface Kept {
  migrations: number
  tables: Head['tables']
  files: string[]
}

/** Reads all tables at one moment into a folder: packing them takes longer, and is done after. */
const readTables = (db: Database, folder: string): Promise<Kept> =>
  db.transaction(
    async tx => {
      const tables: Head['tables'] = []
      for (const name of await listTables(tx)) tables.push({ name, rows: await readTable(tx, name, folder) })
      const known = await tx.select({ id: files.id }).from(files)
      return { migrations: await countMigrations(tx), tables, files: known.map(f => f.id) }
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  )

async function readTable(db: Database, name: string, folder: string): Promise<number> {
  const file = await open(join(folder, name), 'wx', 0o600)
  try {
    let rows = 0
    let last = '(0,0)'
    for (;;) {
      const found = await db
        .select({ row: sql<string>`row_to_json(t)::text`, at: sql<string>`t.ctid::text` })
        .from(sql`${sql.identifier(name)} t`)
        .where(sql`t.ctid > ${last}::tid`)
        .orderBy(sql`t.ctid`)
        .limit(AT_ONCE)
      const end = found.at(-1)
      if (!end) return rows
      await file.write(found.map(f => `${f.row}\n`).join(''))
      rows += found.length
      last = end.at
    }
  } finally {
    await file.close()
  }
}

async function writeArchive(path: string, folder: string, kept: Kept): Promise<Head> {
  const present: { id: string; size: number }[] = []
  for (const id of kept.files) {
    const size = await sizeOfFile(id)
    // One that was deleted meanwhile, or stands in the database.
    if (size !== null) present.push({ id, size })
  }
  const head: Head = {
    backup: 'tobbin',
    format: 1,
    madeAt: new Date().toISOString(),
    migrations: kept.migrations,
    tables: kept.tables,
    files: present.length,
  }
  const archive = pack()
  const written = pipeline(archive, createGzip(), createWriteStream(path, { flags: 'wx', mode: 0o600 }))
  const filled = fillArchive(archive, folder, head, present).catch((error: unknown) => {
    archive.destroy(error instanceof Error ? error : new Error('The backup broke off.'))
  })
  await Promise.all([written, filled])
  return head
}

async function fillArchive(
  archive: Pack,
  folder: string,
  head: Head,
  present: readonly { id: string; size: number }[],
) {
  archive.entry({ name: HEAD }, JSON.stringify(head))
  for (const { name } of head.tables) {
    const path = join(folder, name)
    const { size } = await stat(path)
    await addEntry(archive, { name: tableEntry(name), size }, createReadStream(path))
  }
  for (const { id, size } of present) await addEntry(archive, { name: fileEntry(id), size }, readFile(id))
  archive.finalize()
}

const addEntry = (archive: Pack, headers: Partial<Header> & { name: string }, from: NodeJS.ReadableStream) =>
  pipeline(from, archive.entry(headers))

async function syncFile(path: string) {
  const file = await open(path, 'r')
  await file.sync()
  await file.close()
}
