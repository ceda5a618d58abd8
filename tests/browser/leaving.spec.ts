import { expect, test, type Page } from '@playwright/test'
import Papa from 'papaparse'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { newForm } from './scriptSupport'
import { choose, errorsOf, open, signIn } from './support'

const FORM: Form = {
  ...{ tobbin: 2, code: 'swarm', title: 'Swarm call' },
  sections: [
    {
      ...{ code: 'call', title: 'The call' },
      items: [
        {
          kind: 'question',
          type: 'text',
          code: 'caller',
          label: 'Who calls?',
          required: true,
          personal: true,
        },
        { kind: 'question', type: 'integer', code: 'height', label: 'How high?', min: 0, max: 40 },
      ],
    },
  ],
}

/** A new form with two responses, one of a caller whom no other form knows. */
async function collected(page: Page): Promise<{ id: string; caller: string }> {
  await signIn(page)
  const id = await newForm(page, FORM)
  const token = await releaseForm(page, id)
  const begunOn = new Date().toISOString().slice(0, 10)
  const caller = `Zoe ${id.slice(0, 8)}`
  for (const [i, answers] of [
    { caller, height: 4 },
    { caller: 'Piet', height: 12 },
  ].entries()) {
    const sending = { release: 1, key: `swarm-${id}-${i}`, begunOn, answers }
    expect((await page.request.post(`/api/answer/${token}`, { data: sending })).status()).toBe(200)
  }
  await open(page, `/forms/${id}/collect`)
  await expect(page.getByRole('heading', { name: '2 responses' })).toBeVisible()
  return { id, caller }
}
const rail = (page: Page) => page.getByRole('navigation', { name: 'What is looked at' })

test('a table comes back in: what it would change is seen first, refused rows say why', async ({ page }) => {
  const errors = errorsOf(page)
  const { id } = await collected(page)
  const csv = await (await page.request.get(`/api/forms/${id}/export?format=csv`)).text()
  const [heads = [], first = [], second = []] = Papa.parse<string[]>(csv.replace(/^\uFEFF/, '').trim()).data
  const at = heads.indexOf('How high?')
  const withHeight = (row: string[], height: string, number = row[0] ?? '') =>
    row.with(at, height).with(0, number)
  const table = [heads, withHeight(first, '9'), withHeight(second, '41'), withHeight(second, '7', '')]
  await page.getByRole('button', { name: 'Bring in …' }).click()
  const file = { name: 'swarms.csv', mimeType: 'text/csv', buffer: Buffer.from(Papa.unparse(table)) }
  await page.getByLabel('File with responses').setInputFiles(file)
  const dialog = page.getByRole('dialog', { name: 'Bring responses in' })
  await expect(dialog.getByText('1 changed')).toBeVisible()
  await dialog.getByText('1 changed').click()
  await expect(dialog.getByRole('list', { name: 'Rows' })).toContainText('How high?: 4 → 9')
  expect(await violationsOn(page, 'import')).toEqual([])
  await dialog.getByText('1 refused').click()
  await expect(dialog.getByRole('list', { name: 'Rows' })).toContainText('between 0 and 40')
  await dialog.getByRole('button', { name: 'Bring 2 in' }).click()
  await expect(dialog.getByText('1 came in, 1 were corrected')).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await expect(page.getByRole('heading', { name: '3 responses' })).toBeVisible()
  const cells = page.getByRole('row', { name: /Zoe/ }).getByRole('cell')
  await expect(cells.last()).toHaveText('9')
  expect(errors).toEqual([])
})

test('personal answers go after some months or when somebody asks, and everything about one person is found', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const { caller } = await collected(page)
  await rail(page).getByText('How long it is kept').click()
  const pane = page.getByRole('region', { name: 'How long it is kept' })
  await expect(pane).toContainText('Who calls?')
  await choose(page, 'What becomes of them', 'kept without the personal answers')
  await pane.getByRole('button', { name: 'Keep it so' }).click()
  await expect(pane.getByRole('button', { name: 'Keep it so' })).toBeDisabled()
  expect(await violationsOn(page, 'keeping')).toEqual([])
  await pane.getByRole('link', { name: 'Everything about one person' }).click()
  await page.getByLabel('Name, address or number').fill(caller)
  await page.getByRole('button', { name: 'Find' }).click()
  await expect(page.getByText(`1 response with “${caller}”`)).toBeVisible()
  expect(await violationsOn(page, 'one person')).toEqual([])
  const downloading = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Hand all out (ZIP)' }).click()
  expect((await downloading).suggestedFilename()).toBe('about-one-person.zip')
  await page.getByRole('button', { name: 'Take personal answers out …' }).click()
  await page.getByLabel('Why').fill('Asked for in writing')
  await page.getByRole('button', { name: 'Take them out' }).click()
  await expect(page.getByText(`No response of your forms holds “${caller}”.`)).toBeVisible()
  expect(errors).toEqual([])
})

test('figures stand on a dashboard, in the order that one likes, and follow the responses', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const { id } = await collected(page)
  const board = `Swarms ${id.slice(0, 6)}`
  await rail(page).getByText('Question by question').click()
  const putOn = async (name: string, title: string) => {
    await page.getByRole('button', { name: title }).first().click()
    const dialog = page.getByRole('dialog', { name: 'Put it on a dashboard' })
    await choose(page, 'Which dashboard', name)
    if (name === 'a new dashboard') await dialog.getByLabel('Name of the dashboard').fill(board)
    await dialog.getByRole('button', { name: 'Put it there' }).click()
    await expect(dialog).toBeHidden()
  }
  await putOn('a new dashboard', 'Put the number on a dashboard')
  await putOn(board, 'Put it on a dashboard')
  await open(page, '/dashboards')
  await page.getByRole('navigation', { name: 'Dashboards' }).getByText(board).click()
  const shown = page.getByRole('region', { name: board })
  await expect(shown.getByRole('article')).toHaveCount(2)
  await expect(shown.getByRole('article', { name: 'Responses' })).toContainText('2')
  expect(await violationsOn(page, 'dashboard')).toEqual([])
  await shown.getByRole('button', { name: 'Responses: further to the back' }).click()
  await expect(shown.getByRole('article').last()).toHaveAccessibleName('Responses')
  await shown.getByRole('button', { name: 'Take Responses off' }).click()
  await expect(shown.getByRole('article')).toHaveCount(1)
  await page.reload()
  await page.getByRole('navigation', { name: 'Dashboards' }).getByText(board).click()
  await expect(shown.getByRole('article')).toHaveCount(1)
  expect(errors).toEqual([])
})
