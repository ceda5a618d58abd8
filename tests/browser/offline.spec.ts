import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { newForm } from './scriptSupport'
import { errorsOf, giveFiles, open, responsesOf, signIn } from './support'
import { newPage } from './turnsSupport'
import { releaseForm } from '../support/release'

const FORM: Form = {
  ...{ tobbin: 2, code: 'hive', title: 'Hive inspection' },
  sections: [
    {
      ...{ code: 'hive', title: 'The hive' },
      items: [
        { kind: 'question', type: 'text', code: 'place', label: 'Which hive?', required: true },
        { kind: 'question', type: 'yesNo', code: 'queen', label: 'Is the queen there?', required: true },
        {
          ...{ kind: 'question', type: 'longText', code: 'missing', label: 'What did you see instead?' },
          shownWhen: 'queen = false',
        },
        { kind: 'question', type: 'file', code: 'photo', label: 'Photo' },
      ],
    },
  ],
}

/** Waits until the browser has what the page needs without network. */
const keptForOffline = (page: Page) =>
  expect
    .poll(() =>
      page.evaluate(async () => {
        const pages = await caches.open('respondent-pages')
        return (await pages.keys()).length
      }),
    )
    .toBeGreaterThan(0)

async function fill(page: Page, hive: string) {
  await page.getByLabel('Which hive?').fill(hive)
  await page.getByRole('radiogroup', { name: 'Is the queen there?' }).getByLabel('No').check()
  await page.getByLabel('What did you see instead?').fill('Queen cells')
}

async function send(page: Page) {
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Send', exact: true }).click()
}

test('once opened, a form works without network; what is sent waits, goes out by itself, and once', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  const address = `/f/${await releaseForm(page, id)}`
  const field = await newPage(browser)
  await open(field, address)
  await keptForOffline(field)
  const context = field.context()
  await context.setOffline(true)
  await open(field, address)
  await fill(field, 'Orchard')
  await giveFiles(field, 'Photo', {
    ...{ name: 'hive.txt', mimeType: 'text/plain' },
    buffer: Buffer.from('frames and bees'),
  })
  await send(field)
  await expect(field.getByRole('heading', { name: 'Waiting to be sent' })).toBeVisible()
  await field.getByRole('button', { name: 'Answer once more' }).click()
  await fill(field, 'Meadow')
  await send(field)
  await expect(field.getByText('2 responses wait on this device to be sent.')).toBeVisible()
  // Closed and opened again, still without network.
  await field.close()
  const later = await context.newPage()
  await open(later, address)
  await expect(later.getByText('2 responses wait')).toBeVisible()
  expect((await responsesOf(page, id)).rows).toEqual([])
  await context.setOffline(false)
  await expect(later.getByText('wait on this device')).toBeHidden({ timeout: 30_000 })
  const { rows } = await responsesOf(page, id)
  expect(rows.map(r => r.cells.place).sort()).toEqual(['Meadow', 'Orchard'])
  expect(rows.map(r => r.cells.photo).sort()).toEqual(['', 'hive.txt (15 bytes)'])
  expect(errors).toEqual([])
})

test('a connection lost while sending stores nothing twice', async ({ page, browser }) => {
  await signIn(page)
  const id = await newForm(page, FORM)
  const address = `/f/${await releaseForm(page, id)}`
  const field = await newPage(browser)
  await open(field, address)
  await keptForOffline(field)
  await fill(field, 'Orchard')
  let isCut = true
  // The server takes the response, and its answer is lost.
  await field.route(`**/api${address.replace('/f/', '/answer/')}`, async route => {
    if (route.request().method() !== 'POST' || !isCut) return route.continue()
    isCut = false
    await route.fetch()
    await route.abort()
  })
  await send(field)
  await expect(field.getByRole('heading', { name: 'Waiting to be sent' })).toBeVisible()
  await field.getByRole('button', { name: 'Send now' }).click()
  await expect(field.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  expect((await responsesOf(page, id)).rows).toHaveLength(1)
})

test('what waited and is not taken is said, and can be looked at', async ({ page, browser }) => {
  await signIn(page)
  const id = await newForm(page, FORM)
  const address = `/f/${await releaseForm(page, id)}`
  const field = await newPage(browser)
  await open(field, address)
  await keptForOffline(field)
  await field.context().setOffline(true)
  await fill(field, 'Orchard')
  await send(field)
  await expect(field.getByRole('heading', { name: 'Waiting to be sent' })).toBeVisible()
  await page.request.put(`/api/forms/${id}/releases/1/withdrawal`, { data: { isWithdrawn: true } })
  await field.context().setOffline(false)
  await expect(field.getByText('A response that waited was not taken')).toBeVisible({ timeout: 30_000 })
  await field.getByRole('button', { name: 'Look at it' }).click()
  await expect(field.getByLabel('Which hive?')).toHaveValue('Orchard')
})
