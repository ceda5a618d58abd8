import { spawn, type ChildProcess } from 'node:child_process'
import { rmSync } from 'node:fs'
import { chromium, type Browser, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { largeForm } from './forms'

const PORT = 4878
export const BASE = `http://localhost:${PORT}`
const DATA = 'test-results/bench'
const KEYS = 40
/** Pixels a frame: about three rows, a fast turn of the wheel. */
const SCROLL_STEP = 100

export const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0

/** Runs something against the built application with an empty store of its own. */
export async function withApplication(run: (page: Page) => Promise<void>): Promise<void> {
  rmSync(DATA, { recursive: true, force: true })
  const server: ChildProcess = spawn(
    process.execPath,
    ['scripts/demo.mjs', '--port', String(PORT), '--data', DATA],
    { stdio: 'ignore' },
  )
  let browser: Browser | null = null
  try {
    await answering()
    browser = await chromium.launch({
      executablePath: process.env.CHROMIUM_PATH || '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    })
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: BASE })
    await page.goto(`${BASE}/sign-in`)
    await hydrated(page)
    await page.request.post(`${BASE}/api/session`, {
      data: { email: 'ines@wherry.example', password: 'wherry-reach' },
    })
    await run(page)
  } finally {
    await browser?.close()
    server.kill()
  }
}

async function answering() {
  for (let i = 0; i < 600; i++) {
    const up = await fetch(`${BASE}/api/answer/none`).then(
      r => r.status === 404,
      () => false,
    )
    if (up) return
    await new Promise(again => setTimeout(again, 500))
  }
  throw new Error('The application did not start.')
}

export const hydrated = (page: Page) =>
  page.waitForFunction(() => Reflect.get(window, 'useNuxtApp')?.().isHydrating === false)

/** Types into a field and takes the milliseconds from each input to the frame after it is painted. */
const typing = (page: Page, selector: string, keys = KEYS) =>
  page.evaluate(
    async ([query, count]) => {
      const field = document.querySelector(query)
      if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement))
        throw new Error(`No field ${query}`)
      const times: number[] = []
      for (let i = 0; i < count; i++) {
        const begun = performance.now()
        field.value = `word ${i}`
        field.dispatchEvent(new Event('input', { bubbles: true }))
        await new Promise<void>(done => requestAnimationFrame(() => setTimeout(done)))
        times.push(performance.now() - begun)
      }
      return times
    },
    [selector, keys] as const,
  )

export async function newForm(page: Page, form: Form): Promise<string> {
  return (await (await page.request.post(`${BASE}/api/forms`, { data: { definition: form } })).json()).id
}

/** The same questions in one section: the most that a page can hold. */
const onOnePage = (form: Form): Form => ({
  ...form,
  code: 'one_page',
  sections: [{ code: 'all', title: 'All', items: form.sections.flatMap(s => s.items) }],
})

/** A keystroke on the respondent's page of a form of 500 questions, in sections and all on one page. */
export async function answeringKeystroke(
  page: Page,
  say: (what: string, value: string, goal: string) => void,
) {
  for (const [words, form] of [
    ['in sections', largeForm(500)],
    ['all on one page', onOnePage(largeForm(500))],
  ] as const) {
    const id = await newForm(page, form)
    await page.goto(`${BASE}/f/${await releaseForm(page, id, 'measured', BASE)}`)
    await hydrated(page)
    const times = await typing(page, '#q-q0')
    say(
      `keystroke to screen, respondent, 500 questions ${words} (median)`,
      `${median(times).toFixed(1)} ms`,
      'under 50 ms',
    )
  }
}

/** A keystroke in the script of a form of 500 questions to the screen, script and rehearsal; then a script of 1,000 rows. */
export async function writingKeystroke(page: Page, say: (what: string, value: string, goal: string) => void) {
  const id = await newForm(page, largeForm(500))
  await openScript(page, id)
  await page.locator('[data-address="item/q3"] .label').click()
  const times = await typing(page, '.editor input')
  say(
    'keystroke in the script of 500 questions to screen (median)',
    `${median(times).toFixed(1)} ms`,
    'under 50 ms',
  )

  const rows = await newForm(page, largeForm(1000))
  const begun = Date.now()
  await page.goto(`${BASE}/forms/${rows}/write`)
  await page.locator('[data-address="item/q3"]').waitFor()
  say('script of 1,000 rows: from the address to the first rows', `${Date.now() - begun} ms`, '-')
  await page.locator('[data-address="item/q3"] .label').click()
  say(
    'keystroke in the script of 1,000 rows (median)',
    `${median(await typing(page, '.editor input')).toFixed(1)} ms`,
    'under 50 ms',
  )
  const frames = await page.evaluate(async step => {
    const list = document.querySelector('.script .rows')
    const gaps: number[] = []
    let last = performance.now()
    for (let i = 0; i < 120; i++) {
      list?.scrollBy(0, step)
      await new Promise(requestAnimationFrame)
      gaps.push(performance.now() - last)
      last = performance.now()
    }
    return gaps.slice(5)
  }, SCROLL_STEP)
  say('scrolling 1,000 rows: longest frame', `${Math.max(...frames).toFixed(1)} ms`, 'under 50 ms')
  say(
    'scrolling 1,000 rows: frames over 50 ms',
    `${frames.filter(f => f > 50).length} of ${frames.length}`,
    'none',
  )
}

async function openScript(page: Page, id: string) {
  await page.goto(`${BASE}/forms/${id}/write`)
  await page.locator('[data-address="item/q3"]').waitFor()
}
