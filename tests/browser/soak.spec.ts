import { expect, test } from '@playwright/test'
import { startServer } from './ownServer'

/** Pages that the server draws, of all kinds that strangers can ask for; with a parameter none is kept ready. */
const PAGES = ['/f/demo_haul_out?berth=7', '/sign-in', '/f/demo_after_launch?from=quay', '/nowhere']
const COUNT = 3_000
/** Megabytes: at 0.12 MB a page that stays, half of the pages would fill it. */
const HEAP = 160

test('three thousand pages leave nothing in the server’s memory', async () => {
  test.setTimeout(400_000)
  const server = await startServer({ demo: true, heap: HEAP })
  let next = 0
  const ask = async () => {
    while (next < COUNT) {
      const page = PAGES[next++ % PAGES.length] ?? ''
      const answer = await fetch(`${server.url}${page}`, { headers: { accept: 'text/html' } })
      const text = await answer.text()
      expect(text).toContain('</html>')
      expect(answer.status).toBe(page === '/nowhere' ? 404 : 200)
    }
  }
  try {
    await Promise.all([ask(), ask(), ask(), ask()])
    expect(server.isAlive()).toBe(true)
    expect(server.printed()).not.toMatch(/heap|out of memory/i)
  } finally {
    await server.end()
  }
})
