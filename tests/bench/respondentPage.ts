import type { Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { BASE, hydrated, median, newForm } from './pages'

const question = (code: string, label: string, more: object) =>
  ({ kind: 'question', code, label, required: true, ...more }) as never

/** Text, choice, yes or no, number and date: what nearly every form asks. */
const FIVE_TYPES: Form = {
  tobbin: 2,
  code: 'five_types',
  title: 'Five types',
  sections: [
    {
      code: 'boat',
      title: 'Boat',
      items: [
        question('boat_name', 'Name', { type: 'text' }),
        question('hull', 'Hull', {
          type: 'choice',
          options: [
            { code: 'wood', label: 'Wood' },
            { code: 'steel', label: 'Steel' },
          ],
        }),
        question('berth', 'Berth at Wherry Reach?', { type: 'yesNo' }),
        question('crew', 'Crew', { type: 'integer' }),
        question('lift', 'Day of the lift', { type: 'date' }),
      ],
    },
  ],
}
const VISITS = 5
const SLOWER = 4

/** Bytes of script as they travel, and the time to a page that works, with a processor four times slower. */
export async function respondentPage(page: Page, say: (what: string, value: string, goal: string) => void) {
  const token = await releaseForm(page, await newForm(page, FIVE_TYPES), 'measured', BASE)
  const times: number[] = []
  let bytes = 0
  for (let visit = 0; visit < VISITS; visit++) {
    const context = await page.context().browser()?.newContext()
    if (!context) throw new Error('The browser is gone.')
    const guest = await context.newPage()
    const sizes: Promise<number>[] = []
    guest.on('requestfinished', request => {
      if (request.url().endsWith('.js')) sizes.push(request.sizes().then(s => s.responseBodySize))
    })
    const session = await context.newCDPSession(guest)
    await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER })
    const begun = Date.now()
    await guest.goto(`${BASE}/f/${token}`)
    await hydrated(guest)
    times.push(Date.now() - begun)
    await guest.waitForLoadState('networkidle')
    bytes = (await Promise.all(sizes)).reduce((sum, n) => sum + n, 0)
    await context.close()
  }
  say(
    'script of the respondent’s page, five types (compressed)',
    `${(bytes / 1000).toFixed(1)} kB`,
    'under 190 kB',
  )
  say(
    `respondent’s page works, processor ${SLOWER} times slower (median of ${VISITS})`,
    `${median(times)} ms`,
    '-',
  )
}
