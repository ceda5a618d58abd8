import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { openTestStore, type TestStore } from '../testing/testStore'
import { startJobs, type Job } from './jobs'
import { listJobStates } from './states'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

it('background work that was due before a restart is done after it, and again where it failed', async () => {
  const done: string[] = []
  let fails = 1
  const job = (isDue: boolean): Job => ({
    name: 'tidy-up',
    cron: '0 0 1 1 *',
    isDue: () => Promise.resolve(isDue),
    run: () => {
      if (fails-- > 0) throw new Error('The first try of this test fails.')
      done.push('tidy-up')
      return Promise.resolve()
    },
  })
  const said = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  // Nobody looks before the first process ends.
  const first = await startJobs(store.store, [job(true)], { first: 1, every: 3_600 })
  await first.stop()
  expect(done).toEqual([])
  const second = await startJobs(store.store, [job(false)], { first: 1, every: 1 })
  await vi.waitFor(() => expect(done).toEqual(['tidy-up']), { timeout: 60_000, interval: 200 })
  await vi.waitFor(
    async () => {
      const states = await listJobStates(store.db)
      expect(states).toMatchObject([{ name: 'tidy-up', failedLast: false }])
      expect(Date.parse(states[0]?.doneAt ?? '')).toBeGreaterThan(Date.now() - 120_000)
    },
    { timeout: 20_000, interval: 200 },
  )
  await second.stop()
  expect(said.mock.calls.join()).toContain('“tidy-up” failed, and is tried again')
  said.mockRestore()
})
