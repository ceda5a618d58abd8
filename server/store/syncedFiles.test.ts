import { mkdtemp, readdir, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it, vi } from 'vitest'
import { openStore } from './database'
import { readMigrations } from './migrationFiles'
import { users } from './schema'

const written = vi.hoisted(() => ({ count: 0 }))
vi.mock('node:fs', async original => {
  const fs = await original<typeof import('node:fs')>()
  const fsyncSync = (file: number) => {
    written.count += 1
    fs.fsyncSync(file)
  }
  return { ...fs, fsyncSync }
})

it('what the embedded store acknowledges was written to the disk before, in a folder that is its owner’s alone', async () => {
  const parent = await mkdtemp(join(tmpdir(), 'tobbin-test-'))
  const folder = join(parent, 'data')
  const { db, close } = await openStore({
    url: undefined,
    folder,
    migrations: await readMigrations(),
    first: () => Promise.resolve(),
  })
  for (const n of [1, 2, 3]) {
    const before = written.count
    await db.insert(users).values({ email: `${n}@wherry.example`, name: 'N' })
    expect(written.count).toBeGreaterThan(before)
  }
  await close()
  const modeOf = async (path: string) => (await stat(path)).mode & 0o077
  expect(await modeOf(folder)).toBe(0)
  const files = await readdir(folder, { recursive: true, withFileTypes: true })
  const open: string[] = []
  for (const f of files) {
    const path = join(f.parentPath, f.name)
    if ((await modeOf(path)) !== 0) open.push(path.slice(folder.length))
  }
  expect(open).toEqual([])
  await rm(parent, { recursive: true, force: true })
})
