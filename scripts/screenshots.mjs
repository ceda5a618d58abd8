// npm run screenshots: docs/screenshots from the demo data, against a demo server that is running (TOBBIN_URL).
import { chromium } from '@playwright/test'
import { chromium as browserPath } from './prepare.mjs'

const base = process.env.TOBBIN_URL ?? 'http://localhost:4870'
const browser = await chromium.launch({ executablePath: browserPath() ?? undefined, args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] })
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
const shoot = (name, from = page) => from.screenshot({ path: `docs/screenshots/${name}.png` })
const ready = from => from.waitForFunction(() => window.useNuxtApp?.().isHydrating === false)

await page.goto(`${base}/sign-in`)
await ready(page)
await page.getByLabel('E-mail').fill('ines@wherry.example')
await page.getByLabel('Password').fill('wherry-reach')
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('heading', { name: 'Forms' }).waitFor()
await shoot('home')

await page.getByRole('link', { name: 'Haul-out and works request' }).click()
const rehearsal = page.getByRole('region', { name: 'Rehearsal' })
await rehearsal.getByLabel('Your name').fill('Ines Marlow')
await rehearsal.getByRole('radiogroup', { name: /berth at Wherry Reach/ }).getByLabel('No').check()
await rehearsal.getByRole('radiogroup', { name: /insured/ }).getByLabel('No').check()
await rehearsal.getByRole('button', { name: /Next/ }).click()
await rehearsal.getByLabel('Boat’s name').or(rehearsal.getByLabel('Boat\'s name')).fill('Grey Wagtail')
await rehearsal.getByLabel('Wood', { exact: true }).check()
await page.getByRole('button', { name: 'Has the keel been off' }).click()
await page.locator('.editor').evaluate(e => e.scrollIntoView({ block: 'end' }))
await page.getByRole('link', { name: /all decided/ }).waitFor()
await shoot('write')
await page.getByRole('link', { name: /Collect/ }).click()
await page.getByRole('cell', { name: 'Grey Wagtail' }).first().click()
await shoot('collect')

await page.goto(base)
await page.getByRole('link', { name: 'Mooring renewal' }).click()
await page.getByRole('link', { name: /Prove.*fault/ }).click()
await page.getByText('“Policy number” can never be shown').click()
await shoot('prove')
await page.getByRole('link', { name: /Release/ }).click()
await page.getByText('A form with a fault is not released.').waitFor()
await shoot('release')

for (const [name, width, height, colorScheme] of [['answer', 1280, 800, 'light'], ['answer-phone-dark', 360, 740, 'dark']]) {
  const guest = await (await browser.newContext({ viewport: { width, height }, colorScheme })).newPage()
  await guest.goto(`${base}/f/demo_haul_out`)
  await ready(guest)
  await guest.getByLabel('Your name').fill('Hanna Oakes')
  await guest.getByRole('radiogroup', { name: /berth at Wherry Reach/ }).getByLabel('Yes').check()
  await guest.getByLabel('Berth number').fill('300')
  await guest.getByRole('radiogroup', { name: /insured/ }).getByLabel('No').check()
  await shoot(name, guest)
}
await browser.close()
