import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openTestStore, type TestStore } from '../testing/testStore'
import { seed } from '../services/seed'
import { DEMO_OWNER } from '../services/seedPeople'
import { findUser, hashPassword } from '../services/people/passwords'
import { openStore } from './database'
import { readMigrations } from './migrationFiles'
import { forms } from './schema'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

describe('the store', () => {
  it('is filled once: a second start keeps what is there', async () => {
    const before = (await store.db.select().from(forms)).length
    await seed(store.db, true)
    expect((await store.db.select().from(forms)).length).toBe(before)
    expect(before).toBeGreaterThan(3)
  })

  it('keeps a second process out of an embedded folder', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'tobbin-test-'))
    const open = async () =>
      openStore({
        url: undefined,
        folder,
        migrations: await readMigrations(),
        first: () => Promise.resolve(),
      })
    const first = await open()
    await expect(open()).rejects.toThrow('is open in another Tobbin')
    await first.close()
    const second = await open()
    await second.close()
    await rm(folder, { recursive: true, force: true })
  })

  it('lets in who knows the password, and nobody else', async () => {
    const { db } = store
    const known = await findUser(db, ` ${DEMO_OWNER.email.toUpperCase()} `, DEMO_OWNER.password)
    expect(known?.name).toBe(DEMO_OWNER.name)
    expect(await findUser(db, DEMO_OWNER.email, 'another')).toBeNull()
    expect(await findUser(db, 'nobody@wherry.example', DEMO_OWNER.password)).toBeNull()
    expect(await hashPassword('twice')).not.toBe(await hashPassword('twice'))
  })
})
