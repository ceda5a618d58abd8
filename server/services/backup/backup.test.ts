import { randomUUID } from 'node:crypto'
import { mkdtemp, readdir, readFile, rm, stat, truncate, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setImmediate } from 'node:timers/promises'
import { count, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Edit } from '../../../core/form/edits'
import { openStore, type Database } from '../../store/database'
import { keepFile, readFile as readKept, receiveFile, useFileFolder } from '../../store/fileFolder'
import { readMigrations } from '../../store/migrationFiles'
import { files, users } from '../../store/schema'
import { newDatabase, openTestStore, type TestStore } from '../../testing/testStore'
import { saveEdits } from '../drafts'
import { keepDailyBackups } from './dailyBackup'
import { restoreBackup } from './restoreBackup'
import { countMigrations, listTables } from './tables'
import { writeBackup } from './writeBackup'

const PHOTO = Buffer.from('a photograph of the keel')
let store: TestStore
let folder = ''
let backup = ''
const fileId = randomUUID()
/** What the store kept when the backup was made: other tests go on working in it. */
let keptThen: Record<string, string[]> = {}

beforeAll(async () => {
  store = await openTestStore()
  folder = await mkdtemp(join(tmpdir(), 'tobbin-backup-'))
  backup = join(folder, 'all.backup')
  const [release] = await store.db.query.releases.findMany({ limit: 1 })
  await keepFile(await receiveFile(write => write(PHOTO)), fileId)
  const about = {
    id: fileId,
    sendingKey: 'k',
    question: 'photo',
    name: 'Kiel \n ü.jpg',
    mediaType: 'image/jpeg',
  }
  await store.db.insert(files).values({ ...about, releaseId: release?.id ?? '', size: PHOTO.length })
  await writeBackup(store.db, backup)
  keptThen = await everythingIn(store.db)
})
afterAll(async () => {
  await store.end()
  await rm(folder, { recursive: true, force: true })
})

/** Every row of every table, as PostgreSQL prints it; but for which transaction of its own store wrote a response last, which a store keeps for itself. */
async function everythingIn(db: Database) {
  const all: Record<string, string[]> = {}
  for (const name of await listTables(db)) {
    const rows = await db
      .select({ row: sql<string>`(to_jsonb(t) - 'touched_by')::text` })
      .from(sql`${sql.identifier(name)} t`)
    all[name] = rows.map(r => r.row).sort()
  }
  return all
}

/** An empty place to bring something back to, of the same kind as the store of this test. */
async function emptyPlace() {
  const server = process.env.TEST_DATABASE_URL
  const own = server ? await newDatabase(server) : null
  const at = await mkdtemp(join(folder, 'place-'))
  return { url: own?.url, folder: at, migrations: await readMigrations() }
}

async function inside<T>(place: Awaited<ReturnType<typeof emptyPlace>>, look: (db: Database) => Promise<T>) {
  const opened = await openStore({ ...place, first: () => Promise.resolve() })
  try {
    return await look(opened.db)
  } finally {
    await opened.close()
  }
}

describe('a backup', () => {
  it('brings everything back, and is its owner’s alone', async () => {
    expect((await stat(backup)).mode & 0o777).toBe(0o600)
    const place = await emptyPlace()
    useFileFolder(place.folder)
    await restoreBackup(backup, place)
    expect(await inside(place, everythingIn)).toEqual(keptThen)
    const pieces: Buffer[] = []
    for await (const piece of readKept(fileId)) pieces.push(piece)
    expect(Buffer.concat(pieces)).toEqual(PHOTO)
    // A store that holds something is never written over.
    await expect(restoreBackup(backup, place)).rejects.toThrow('not empty')
    useFileFolder(store.folder)
  })

  it('that is damaged, cut off or none at all leaves an empty store behind', async () => {
    const { size } = await stat(backup)
    const place = await emptyPlace()
    for (const [name, damage] of [
      ['cut', (path: string) => truncate(path, Math.floor(size * 0.6))],
      ['nearly', (path: string) => truncate(path, size - 9)],
      ['none', (path: string) => writeFile(path, 'This is no backup.')],
      ['empty', (path: string) => writeFile(path, '')],
    ] as const) {
      const path = join(folder, name)
      await writeFile(path, await readFile(backup))
      await damage(path)
      await expect(restoreBackup(path, place), name).rejects.toThrow(/is no backup, or is damaged/)
      expect(await inside(place, db => db.select({ n: count() }).from(users))).toEqual([{ n: 0 }])
    }
  })
})

describe('backups', () => {
  it('that can’t be written say why', async () => {
    const plain = join(folder, 'plain')
    await writeFile(plain, 'A file, no folder.')
    await expect(writeBackup(store.db, join(plain, 'kept'))).rejects.toThrow(/no folder\. There is no backup/)
  })
})

describe('backups', () => {
  it('are made daily, and kept so many times', async () => {
    const daily = join(folder, 'daily')
    for (let day = 1; day <= 9; day++)
      await keepDailyBackups(store.db, daily, 3, new Date(`2026-11-0${day}T03:20:00Z`))
    expect((await readdir(daily)).sort()).toEqual(
      ['2026-11-07', '2026-11-08', '2026-11-09'].map(day => `tobbin-${day}.backup`),
    )
  })

  it('of an older store are brought up to what this one needs', async () => {
    const old = await emptyPlace()
    const journal = JSON.parse(old.migrations['meta/_journal.json'] ?? '')
    const all: number = journal.entries.length
    const cut = JSON.stringify({ ...journal, entries: journal.entries.slice(0, -1) })
    const path = join(folder, 'old.backup')
    await inside({ ...old, migrations: { ...old.migrations, 'meta/_journal.json': cut } }, async db => {
      await db.execute(sql`insert into users (email, name) values ('ada@wherry.example', 'Ada Quay')`)
      await writeBackup(db, path)
    })
    const place = await emptyPlace()
    expect((await restoreBackup(path, place)).migrations).toBe(all - 1)
    expect(await inside(place, db => db.select({ name: users.name }).from(users))).toEqual([
      { name: 'Ada Quay' },
    ])
    expect(await inside(place, countMigrations)).toBe(all)
    // One that a newer Tobbin made is refused.
    const older = { ...(await emptyPlace()), migrations: { ...old.migrations, 'meta/_journal.json': cut } }
    await expect(restoreBackup(backup, older)).rejects.toThrow('newer Tobbin')
  })

  it('are of one moment, while people go on', async () => {
    const form = (await store.db.query.forms.findMany({ limit: 1 }))[0]
    let revision = form?.revision ?? 0
    let isWritten = false
    const busy = join(folder, 'busy.backup')
    const writing = writeBackup(store.db, busy).finally(() => {
      isWritten = true
    })
    while (!isWritten) {
      // The embedded database works within the process: files are written when it leaves off.
      await setImmediate()
      const titled: Edit = { do: 'change', what: 'form', set: { title: `Title ${revision}` } }
      revision = (await saveEdits(store.db, form?.id ?? '', store.designer.id, revision, [titled])).revision
    }
    await writing
    const place = await emptyPlace()
    await restoreBackup(busy, place)
    // Each save raised the revision and left a change: a backup with one of them alone would be of two moments.
    const saved = await inside(place, db => db.query.changes.findMany())
    const kept = await inside(place, db => db.query.forms.findMany())
    const its = kept.find(f => f.id === form?.id)
    expect(saved.length).toBe(its?.revision)
    expect(its?.title).toBe(its?.revision ? `Title ${its.revision - 1}` : form?.title)
  })
})
