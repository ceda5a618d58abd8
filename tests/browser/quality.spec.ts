import { readFileSync } from 'node:fs'
import { expect, test, type Browser, type BrowserContextOptions, type Page } from '@playwright/test'
import { Opening } from '../../core/form/opening'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { newForm } from './scriptSupport'
import { open, released, signIn } from './support'

const EVERY_TYPE = JSON.parse(readFileSync('tests/fixtures/every_type.form.json', 'utf8')) as Form
const KILN: Form = {
  ...{ tobbin: 2, code: 'kiln', title: 'Kiln firing' },
  sections: [
    {
      ...{ code: 'firing', title: 'The firing' },
      items: [
        { kind: 'question', type: 'text', code: 'potter', label: 'Who fires?', required: true },
        { kind: 'question', type: 'yesNo', code: 'glaze', label: 'Is it a glaze firing?', required: true },
        {
          ...{ kind: 'question', type: 'choice', code: 'cone', label: 'Which cone?', shownWhen: 'glaze' },
          options: [
            { code: 'six', label: 'Cone 6' },
            { code: 'ten', label: 'Cone 10' },
          ],
        },
      ],
    },
  ],
}

/** The respondent’s page as somebody with other needs has it. */
async function pageAs(browser: Browser, options: BrowserContextOptions): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options })
  return context.newPage()
}

/** Goes through all states of a respondent’s page, from the first look to what was sent, and looks at each. */
async function walkThrough(page: Page, address: string, look: (state: string) => Promise<void>) {
  await open(page, address)
  await look('begun')
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await expect(page.getByRole('alert').first()).toBeVisible()
  await look('with errors')
  await page.getByLabel('Who fires?').fill('Ada Finch')
  await page.getByRole('radiogroup', { name: 'Is it a glaze firing?' }).getByLabel('Yes').check()
  await expect(page.getByText('Which cone?')).toBeVisible()
  await look('with a question that came into play')
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await expect(page.getByRole('heading', { name: 'Check your answers' })).toBeVisible()
  await look('checking')
  await page.getByRole('button', { name: 'Send', exact: true }).click()
  await expect(page.getByText(/Response \d+|number \d+/i).first()).toBeVisible()
  await look('sent')
}

async function kiln(page: Page, definition: Form = KILN): Promise<{ id: string; address: string }> {
  await signIn(page)
  const id = await newForm(page, definition)
  return { id, address: `/f/${await releaseForm(page, id)}` }
}

test('no accessibility violation in any state of a respondent’s page: begun, wrong, checked, sent, closed, locked', async ({
  page,
  browser,
}) => {
  const { id, address } = await kiln(page)
  const guest = await pageAs(browser, {})
  const seen: string[] = []
  await walkThrough(guest, address, async state => {
    seen.push(state)
    expect(await violationsOn(guest, state)).toEqual([])
  })
  expect(seen).toHaveLength(5)
  const opening = await (await page.request.get(`/api/forms/${id}/opening`)).json()
  await page.request.put(`/api/forms/${id}/passphrase`, { data: { passphrase: 'celadon' } })
  const locked = await pageAs(browser, {})
  await open(locked, `/f/${opening.token}`)
  await expect(locked.getByLabel('Passphrase')).toBeVisible()
  expect(await violationsOn(locked, 'locked')).toEqual([])
  const settings = Opening.parse({ ...opening.settings, isClosed: true })
  const closing = await page.request.put(`/api/forms/${id}/opening`, { data: settings })
  expect(closing.status(), await closing.text()).toBe(200)
  await open(locked, `/f/${opening.token}`)
  expect(await violationsOn(locked, 'closed')).toEqual([])
})

test('at 400 % every state reads in one column: nothing is cut off or scrolled sideways', async ({
  page,
  browser,
}) => {
  const { address } = await kiln(page)
  // 1280 by 1024 pixels, enlarged four times (WCAG 2.2, 1.4.10).
  const guest = await pageAs(browser, { viewport: { width: 320, height: 256 }, deviceScaleFactor: 4 })
  const isWithin = () =>
    guest.evaluate(() => {
      const beyond = [...document.querySelectorAll('main *')].filter(
        e =>
          e.getBoundingClientRect().right > window.innerWidth + 1 &&
          getComputedStyle(e).position !== 'absolute',
      )
      return [document.documentElement.scrollWidth, ...beyond.map(e => e.outerHTML.slice(0, 120))]
    })
  await walkThrough(guest, address, async state => {
    expect([state, ...(await isWithin())]).toEqual([state, 320])
  })
  const every = await pageAs(browser, { viewport: { width: 320, height: 256 }, deviceScaleFactor: 4 })
  await open(every, await released(every, EVERY_TYPE))
  expect(await every.evaluate(() => document.documentElement.scrollWidth)).toBe(320)
})

test('who asked for less motion gets none', async ({ page, browser }) => {
  const { address } = await kiln(page)
  const guest = await pageAs(browser, { reducedMotion: 'reduce' })
  await walkThrough(guest, address, async state => {
    const moving = await guest.evaluate(() =>
      document
        .getAnimations()
        .filter(a => Number(a.effect?.getComputedTiming().duration ?? 0) > 1)
        .map(a => (a.effect instanceof KeyframeEffect ? a.effect.target?.outerHTML.slice(0, 120) : '')),
    )
    expect([state, ...moving]).toEqual([state])
    const longest = await guest.evaluate(() => {
      const seconds = [...document.querySelectorAll('*')].flatMap(e => {
        const { transitionDuration, animationDuration } = getComputedStyle(e)
        return `${transitionDuration},${animationDuration}`.split(',').map(parseFloat)
      })
      return Math.max(...seconds)
    })
    expect([state, longest <= 0.01]).toEqual([state, true])
  })
})

test('with forced colours what is chosen, focused or wrong is told by more than a colour', async ({
  page,
  browser,
}) => {
  const { address } = await kiln(page)
  const guest = await pageAs(browser, { forcedColors: 'active' })
  await walkThrough(guest, address, async state => {
    // The colours are the reader’s own.
    expect(await violationsOn(guest, `forced colours, ${state}`, ['color-contrast'])).toEqual([])
    // Every button and field has a line around it, or words that are underlined, or a picture of its own.
    const bare = await guest.evaluate(() =>
      [...document.querySelectorAll('main button:not([disabled]), main input:not([type=hidden])')]
        .filter(e => e.getBoundingClientRect().width > 0)
        .filter(e => !(e instanceof HTMLElement) || e.innerText?.trim() === '')
        .filter(e => !e.closest('.v-field, .v-selection-control, .v-btn') && !e.querySelector('svg'))
        .map(e => e.outerHTML.slice(0, 120)),
    )
    expect([state, ...bare]).toEqual([state])
  })
})

test('a language that is written from right to left is laid out so', async ({ page, browser }) => {
  const { address } = await kiln(page, { ...KILN, language: 'he' })
  const guest = await pageAs(browser, { viewport: { width: 360, height: 740 } })
  await walkThrough(guest, address, async state => {
    expect([state, await guest.evaluate(() => document.documentElement.dir)]).toEqual([state, 'rtl'])
    expect([state, await guest.evaluate(() => document.documentElement.scrollWidth)]).toEqual([state, 360])
  })
  const other = await pageAs(browser, {})
  await open(other, address)
  const label = await other.getByText('Who fires?').first().boundingBox()
  const main = await other.getByRole('main').boundingBox()
  if (!label || !main) throw new Error('Nothing is shown.')
  const startsAt = await other
    .getByText('Who fires?')
    .first()
    .evaluate(e => {
      const range = document.createRange()
      range.selectNodeContents(e)
      return range.getBoundingClientRect().right
    })
  expect(main.x + main.width - startsAt).toBeLessThan(60)
})
