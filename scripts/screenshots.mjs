// npm run screenshots: docs/screenshots from the demo data, against a demo server that is running (TOBBIN_URL).
import { chromium } from '@playwright/test'
import { chromium as browserPath } from './prepare.mjs'

const base = process.env.TOBBIN_URL ?? 'http://localhost:4870'
const browser = await chromium.launch({
  executablePath: browserPath() ?? undefined,
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
const shoot = (name, from = page) =>
  from.screenshot({ path: `docs/screenshots/${name}.png`, animations: 'disabled' })
const ready = from => from.waitForFunction(() => window.useNuxtApp?.().isHydrating === false)
/** Until the charts in sight are drawn: they hold something, and the same as a moment ago. */
const drawn = () =>
  page.waitForFunction(
    () => {
      const inSight = [...document.querySelectorAll('canvas')].filter(
        c => c.getBoundingClientRect().top < innerHeight,
      )
      const isEmpty = c => !c.getContext('2d').getImageData(0, 0, c.width, c.height).data.some(Boolean)
      const now = inSight.map(c => c.toDataURL()).join()
      const isSame = now === window.drawnBefore
      window.drawnBefore = now
      return inSight.length > 0 && isSame && !inSight.some(isEmpty)
    },
    null,
    { polling: 300 },
  )

await page.goto(`${base}/sign-in`)
await ready(page)
await page.getByLabel('E-mail').fill('ines@wherry.example')
await page.getByLabel('Password').fill('wherry-reach')
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('heading', { name: 'Forms' }).waitFor()
await shoot('home')

await page.getByRole('link', { name: 'Haul-out and works request', exact: true }).click()
const rehearsal = page.getByRole('region', { name: 'Rehearsal' })
await rehearsal.getByLabel('Your name').fill('Ines Marlow')
await rehearsal
  .getByRole('radiogroup', { name: /berth at Wherry Reach/ })
  .getByLabel('No')
  .check()
await rehearsal
  .getByRole('radiogroup', { name: /insured/ })
  .getByLabel('No')
  .check()
await rehearsal.getByRole('button', { name: /Next/ }).click()
await rehearsal.getByLabel('Boat’s name').or(rehearsal.getByLabel("Boat's name")).fill('Grey Wagtail')
await rehearsal.getByLabel('Wood', { exact: true }).check()
await page.locator('[data-address="item/keel_off"] .label').click()
await page.locator('.editor').evaluate(e => e.scrollIntoView({ block: 'end' }))
await rehearsal.getByRole('button', { name: 'Why?' }).nth(3).click()
await page.getByRole('link', { name: /all decided/ }).waitFor()
await shoot('write')
await page.getByRole('tab', { name: 'Documents', exact: true }).click()
await page.getByRole('button', { name: 'With the practice answers' }).first().click()
const paper = page.getByRole('region', { name: '“Estimate” with the practice answers' })
await paper.getByText('Estimate for Grey Wagtail').waitFor()
await paper.evaluate(e => e.scrollIntoView({ block: 'center' }))
await shoot('documents')
await page.getByRole('tab', { name: 'Parties', exact: true }).click()
await page.getByRole('radio', { name: /^2 / }).click()
await shoot('parties')
await page.getByRole('tab', { name: 'Map', exact: true }).click()
await page.locator('.vue-flow__edge').first().waitFor({ state: 'attached' })
await shoot('map')
await page.getByRole('tab', { name: 'Lists', exact: true }).click()
await page.getByRole('button', { name: /^harbours/ }).click()
await page.getByRole('button', { name: 'Tree', exact: true }).click()
await page.locator('.tree .v-list-group__header').first().click()
await page.getByRole('gridcell', { name: 'Tern Quay' }).click()
await shoot('lists')
await page.getByRole('link', { name: /Rehearse/ }).click()
const [first, second] = [1, 2].map(n => page.getByRole('group', { name: `Frame ${n}` }))
await first.getByRole('radio', { name: 'phone' }).click()
await second.getByText('Grey Wagtail').waitFor()
await shoot('rehearse')
await page.getByRole('link', { name: /^Prove/ }).click()
const form = page.url().split('/')[4]
const { rows } = await (await page.request.get(`${base}/api/forms/${form}/responses?size=200`)).json()
const waiting = rows.find(r => r.turn !== null)
const { turns } = await (await page.request.get(`${base}/api/responses/${waiting.id}`)).json()
await page.getByRole('link', { name: /Collect/ }).click()
// By its number: the table stays where its first columns are seen.
const wagtail = page.getByRole('row').filter({ has: page.getByRole('cell', { name: 'Grey Wagtail' }) })
await wagtail.first().getByRole('cell').nth(1).click()
await shoot('collect')
const rail = page.getByRole('navigation', { name: 'What is looked at' })
await rail.getByText('Question by question').click()
await page.getByRole('article', { name: 'Hull material' }).waitFor()
await drawn()
await shoot('figures')
await rail.getByText('In progress').click()
await page.getByText('late', { exact: false }).first().waitFor()
await shoot('board')

await page.goto(`${base}/inbox`)
await page.getByRole('row', { name: /Given back/ }).waitFor()
await shoot('inbox')

await page.goto(base)
await page.getByRole('link', { name: 'Mooring renewal' }).click()
await page.getByRole('link', { name: /Prove.*fault/ }).click()
await page.getByText('“Policy number” can never be shown').click()
await shoot('prove')
await page.getByRole('link', { name: /Release/ }).click()
await page.getByText('A form with a fault is not released.').waitFor()
await shoot('release')

const linkTo = async id => {
  const made = await page.request.post(`${base}/api/turns/${id}/acts`, { data: { do: 'make link' } })
  return (await made.json()).link
}
const guestOf = async (width, height, colorScheme) =>
  (await browser.newContext({ viewport: { width, height }, colorScheme })).newPage()
const guest = await guestOf(1280, 800, 'light')
await guest.goto(`${base}/f/demo_haul_out`)
await ready(guest)
await guest.getByLabel('Your name').fill('Hanna Oakes')
await guest
  .getByRole('radiogroup', { name: /berth at Wherry Reach/ })
  .getByLabel('No')
  .check()
await guest
  .getByRole('radiogroup', { name: /insured/ })
  .getByLabel('No')
  .check()
await guest.getByRole('button', { name: /Next/ }).click()
await guest.getByLabel('Draught').fill('2.2')
await guest.getByLabel('North coast').check()
await guest.getByLabel('Tern Quay').check()
await guest.getByLabel('Quay wall').check()
await guest.getByLabel('Draught').evaluate(e => e.scrollIntoView({ block: 'start' }))
await shoot('answer', guest)

const office = await guestOf(1280, 800, 'light')
await office.goto(`${base}${await linkTo(turns.at(-1).id)}`)
await ready(office)
await shoot('turn', office)

const phone = await guestOf(360, 740, 'dark')
await phone.goto(`${base}/f/demo_after_launch`)
await ready(phone)
await phone.getByRole('radio', { name: '8', exact: true }).check()
await phone.getByRole('button', { name: 'Next' }).click()
await phone.getByRole('radio', { name: 'Good', exact: true }).first().check()
await shoot('answer-phone-dark', phone)
await page.goto(`${base}/dashboards`)
await page.getByRole('article', { name: 'How it went' }).waitFor()
await page.locator('canvas').nth(2).waitFor()
await drawn()
await shoot('dashboard')
await page.goto(`${base}/people`)
await ready(page)
await shoot('people')

await page.goto(base)
await ready(page)
await page.getByRole('link', { name: /^\d+ suggestions$/ }).click()
await page.getByText('comes', { exact: true }).waitFor()
await shoot('suggestions')

await browser.close()
