import { expect, test, type Page } from '@playwright/test'
import { errorsOf, open, signIn } from './support'
import { draftOf, yesNo } from './scriptSupport'
import { releaseForm } from '../support/release'
import type { Form } from '../../core/form/definition'

const form = (code: string, title: string): Form => ({
  tobbin: 2,
  code,
  title,
  sections: [{ code: 's', title: 'S', items: [yesNo('wet')] }],
})
const link = (page: Page, title: string) => page.getByRole('link', { name: title, exact: true })
async function act(page: Page, title: string, what: string) {
  await page.getByRole('button', { name: `More for ${title}`, exact: true }).click()
  await page.getByText(what, { exact: true }).click()
}

test('forms are duplicated, tagged, found, put away and deleted; with responses only when the title is typed', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const made = await page.request.post('/api/forms', { data: { definition: form('dive_log', 'Dive log') } })
  const { id } = await made.json()
  const token = await releaseForm(page, id)
  await open(page, `/f/${token}`)
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Send', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()

  await open(page, '/')
  await act(page, 'Dive log', 'Duplicate…')
  await page.getByLabel('Title of the copy').fill('Night dives')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/write$/)
  const copy = await draftOf(page, page.url().split('/')[4] ?? '')
  expect([copy.title, copy.code, copy.sections]).toEqual([
    'Night dives',
    'night_dives',
    form('', '').sections,
  ])

  await open(page, '/')
  await act(page, 'Night dives', 'Tags…')
  await page.getByRole('combobox', { name: 'Tags' }).fill('water')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.getByRole('button', { name: 'Tag water: show only these' }).click()
  await expect(link(page, 'Night dives')).toBeVisible()
  await expect(link(page, 'Dive log')).toBeHidden()
  await page.getByRole('search').getByText('water').click()
  await page.getByLabel('Find a form').fill('dive log')
  await expect(link(page, 'Dive log')).toBeVisible()
  await expect(link(page, 'Night dives')).toBeHidden()

  await act(page, 'Dive log', 'Put into the archive')
  await expect(page.getByText('No form like this')).toBeVisible()
  await page.getByRole('button', { name: 'Archive (1)' }).click()
  await act(page, 'Dive log', 'Delete…')
  const remove = page.getByRole('button', { name: 'Delete for good' })
  await expect(remove).toBeDisabled()
  expect((await page.request.delete(`/api/forms/${id}`)).status()).toBe(409)
  await page.getByLabel('Type “Dive log” to delete it with them').fill('Dive log')
  await remove.click()
  await expect(page.getByText('“Dive log” is deleted.')).toBeVisible()
  expect((await page.request.get(`/api/forms/${id}`)).status()).toBe(404)
  await open(page, `/f/${token}`)
  await expect(page.getByRole('heading', { name: 'This form can’t be opened' })).toBeVisible()
  expect(errors).toEqual([])
})

test('Ctrl K works from within a field, puts an exact number or code first, and nothing under it gets a key', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const many = form('many', 'Many')
  many.sections[0]?.items.push(yesNo('deep'), yesNo('wet_deep'), yesNo('x'))
  const { id } = await (await page.request.post('/api/forms', { data: { definition: many } })).json()
  await open(page, '/')
  await page.keyboard.press('Control+k')
  await page
    .getByRole('combobox', { name: 'Command or row' })
    .or(page.getByLabel('Command or row'))
    .first()
    .fill('many')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(new RegExp(`${id}/write`))
  await page.locator('[data-address="item/wet"] .label').click()
  await page.locator('.editor').getByLabel('Label').fill('Wet through?')
  // Typed at once, before the list can have the focus.
  await page.keyboard.press('Control+k')
  await page.keyboard.type('deep')
  await expect(page.getByLabel('Command or row')).toHaveValue('deep')
  await expect(
    page.getByRole('option').or(page.getByRole('listitem')).filter({ hasText: 'deep' }).first(),
  ).toContainText('1.2')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Escape')
  await expect(page.locator('.editor').getByLabel('Label')).toHaveValue('Wet through?')
  expect((await draftOf(page, id)).sections[0]?.items).toHaveLength(4)
  expect(errors).toEqual([])
})
