import { expect, test } from '@playwright/test'
import { mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { restoreCommand, backupCommand } from '../../cli/backup'
import { startPostgres } from '../../scripts/prepare.mjs'
import { startServer } from './ownServer'

const day = new Date().toISOString().slice(0, 10)
const send = (url: string, key: string) =>
  fetch(`${url}/api/answer/demo_slipway_incident`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ release: 1, begunOn: day, key, answers: { happened_on: day, kind: 'mistake' } }),
  })

test('a backup is made while the server runs, and brought back elsewhere', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'tobbin-standing-'))
  const file = join(folder, 'all.backup')
  const said: string[] = []
  const write = (text: string) => void said.push(text)
  const first = await startServer({ demo: true })
  try {
    expect((await send(first.url, 'key-of-the-first-1')).status).toBe(200)
    const variables = { NUXT_DATA_FOLDER: join(first.folder, 'data') }
    expect(await backupCommand([file], '', write, variables), said.join()).toBe(0)
    expect(statSync(file).mode & 0o777).toBe(0o600)
    expect(await first.stop()).toBe(0)
  } finally {
    await first.end()
  }
  const data = join(folder, 'data')
  expect(await restoreCommand([file], '', write, { NUXT_DATA_FOLDER: data }), said.join()).toBe(0)
  const second = await startServer({ env: { NUXT_DATA_FOLDER: data } })
  try {
    // What was sent before the backup is known: the same key with other answers is refused.
    const again = await send(second.url, 'key-of-the-first-1')
    expect(again.status).toBe(200)
    const health = await (await fetch(`${second.url}/api/health`)).json()
    expect(health.store).toBe('open')
  } finally {
    await second.end()
    rmSync(folder, { recursive: true, force: true })
  }
})

test('without its PostgreSQL the server says so in seconds, and goes on when it is back', async () => {
  const postgres = await startPostgres()
  if (!postgres) throw new Error('There is no PostgreSQL on this machine, and it can’t be installed.')
  const server = await startServer({ demo: true, env: { DATABASE_URL: postgres.url } })
  try {
    expect((await send(server.url, 'key-before-the-stop')).status).toBe(200)
    expect((await fetch(`${server.url}/api/health`)).status).toBe(200)
    expect(postgres.pause()).toBe(true)
    const begun = Date.now()
    for (const path of ['/api/health', '/api/answer/demo_slipway_incident']) {
      const response = await fetch(`${server.url}${path}`)
      expect(response.status).toBe(503)
      expect((await response.json()).data.sentence).toContain('Try again')
    }
    expect((await send(server.url, 'key-in-the-midst')).status).toBe(503)
    expect(Date.now() - begun).toBeLessThan(30_000)
    expect(server.isAlive()).toBe(true)
    expect(postgres.resume()).toBe(true)
    await expect(async () => {
      expect((await send(server.url, 'key-in-the-midst')).status).toBe(200)
    }).toPass()
    expect(await server.stop(), server.printed()).toBe(0)
  } finally {
    await server.end()
    postgres.stop()
  }
})
