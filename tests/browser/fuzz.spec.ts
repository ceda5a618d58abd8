import { expect, test } from '@playwright/test'
import { fuzz } from '../support/fuzz'
import { startServer } from './ownServer'

test('no request makes the server fail, whoever sends it', async () => {
  const seed = Date.now() % 1_000_000
  const server = await startServer({ demo: true })
  try {
    const { statuses, faults } = await fuzz(server.url, 1_500, seed)
    expect(faults, `seed ${seed}; ${server.printed().slice(-3_000)}`).toEqual([])
    // Requests that all bounce off would show nothing.
    expect(statuses[200] ?? 0).toBeGreaterThan(50)
    expect(server.isAlive()).toBe(true)
  } finally {
    await server.end()
  }
})
