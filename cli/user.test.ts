import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { readMigrations } from '../server/store/migrationFiles'
import { choosePassword } from '../server/services/people/oneTimeKeys'
import { isWaitingForSetUp } from '../server/services/people/setUp'
import { openStore } from '../server/store/database'
import { userCommand } from './user'

let folder = ''
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'tobbin-test-'))
})
afterAll(() => rm(folder, { recursive: true, force: true }))

/** What the command prints, and its exit code. */
async function run(...args: string[]) {
  let printed = ''
  const write = (text: string) => void (printed += text)
  const code = await userCommand(args, 'usage', write, { NUXT_DATA_FOLDER: folder })
  return { code, printed }
}

describe('tobbin user add', () => {
  it('invites the first person of an empty workspace, and nobody twice', async () => {
    const { code, printed } = await run('add', 'ines@wherry.example', 'Ines', 'Marlow')
    expect(code).toBe(0)
    const key = /\/key\/([\w-]+)/.exec(printed)?.[1] ?? ''
    expect(await run('add', 'INES@wherry.example', 'Ines')).toMatchObject({ code: 1 })
    const store = await openStore({
      url: undefined,
      folder,
      migrations: await readMigrations(),
      first: () => Promise.resolve(),
    })
    expect(await isWaitingForSetUp(store.db)).toBe(false)
    const { user } = await choosePassword(store.db, key, 'a long enough password')
    expect(user).toMatchObject({ name: 'Ines Marlow', role: 'admin' })
    await expect(run('add', 'ada@wherry.example', 'Ada')).rejects.toThrow('is open in another Tobbin')
    await store.close()
  })

  it('says how it is called', async () => {
    for (const args of [
      [],
      ['add'],
      ['add', 'nobody', 'N'],
      ['add', 'a@wherry.example'],
      ['drop', 'a@wherry.example', 'A'],
    ])
      expect(await run(...args)).toEqual({ code: 2, printed: 'usage' })
    expect((await run('add', 'a@wherry.example', 'A', '--role', 'king')).code).toBe(2)
    expect((await run('add', 'a@wherry.example', 'A', '--colour', 'red')).code).toBe(2)
  })
})
