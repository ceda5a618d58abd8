import { readFile } from 'node:fs/promises'
import { expect, test } from '@playwright/test'
import readXlsx from 'read-excel-file/node'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { newForm, yesNo } from './scriptSupport'
import { choose, errorsOf, open, signIn } from './support'

const FORM: Form = {
  ...{ tobbin: 2, code: 'orchard', title: 'Orchard survey' },
  sections: [
    {
      ...{ code: 'trees', title: 'Trees' },
      items: [
        { kind: 'question', type: 'text', code: 'row_name', label: 'Which row?', required: true },
        { kind: 'question', type: 'integer', code: 'trees_left', label: 'Trees left', min: 0 },
        yesNo('canker', { label: 'Any canker?' }),
        {
          ...{ kind: 'question', type: 'text', code: 'where_canker', label: 'Where is the canker?' },
          shownWhen: 'canker = true',
        },
      ],
    },
  ],
}
const GIVEN = [
  { row_name: 'Pippin', trees_left: 12, canker: false },
  { row_name: 'Russet', trees_left: 3, canker: true, where_canker: '=stem' },
  { row_name: 'Codlin', trees_left: 30, canker: true },
]

test('responses are filtered by pointing, taken out as they are filtered, and one says by which rule something was not asked', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  const token = await releaseForm(page, id)
  const begunOn = new Date().toISOString().slice(0, 10)
  for (const [i, answers] of GIVEN.entries()) {
    const sending = { release: 1, key: `orchard-${id}-${i}`, begunOn, answers }
    expect((await page.request.post(`/api/answer/${token}`, { data: sending })).status()).toBe(200)
  }
  await open(page, `/forms/${id}/collect`)
  const table = page.getByRole('region', { name: 'Responses' })
  await expect(table.getByRole('heading', { name: '3 responses' })).toBeVisible()
  await table.getByRole('button', { name: 'Filter …' }).click()
  await table.getByRole('combobox', { name: 'Question', exact: true }).fill('canker?')
  await page.keyboard.press('Enter')
  await choose(page, 'Comparison', 'is yes')
  await expect(table.getByRole('heading', { name: '2 of 3 responses' })).toBeVisible()
  await table.getByRole('button', { name: '+ part', exact: true }).click()
  await table.getByRole('combobox', { name: 'Question', exact: true }).last().fill('Trees left')
  await page.keyboard.press('Enter')
  await table.getByLabel('Comparison', { exact: true }).last().press('ArrowDown')
  await page.getByRole('option', { name: 'is at most', exact: true }).click()
  await table.getByLabel('Value').last().fill('5')
  await table.getByLabel('Search the responses').focus()
  await expect(table.getByRole('heading', { name: '1 of 3 responses' })).toBeVisible()
  await expect(table.getByRole('cell', { name: 'Russet' })).toBeVisible()
  expect(await violationsOn(page, 'filtered')).toEqual([])
  await table.getByRole('button', { name: 'Take out …' }).click()
  const downloading = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Workbook (XLSX)' }).click()
  const file = await (await downloading).path()
  const [responses] = await readXlsx(await readFile(file))
  expect(responses?.data.slice(1).map(row => row.slice(6))).toEqual([['Russet', 3, true, '=stem']])
  await page.keyboard.press('Escape')
  await table.getByRole('button', { name: 'Show all' }).click()
  await expect(table.getByRole('heading', { name: '3 responses' })).toBeVisible()
  await table.getByRole('cell', { name: 'Pippin' }).click()
  await expect(page.getByText('Shown when Any canker? is Yes')).toBeVisible()
  expect(await violationsOn(page, 'one response')).toEqual([])
  expect(errors).toEqual([])
})

test('where there is no room beside the table, the rail is folded above it until it is asked for', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await page.setViewportSize({ width: 700, height: 800 })
  await signIn(page)
  const id = await newForm(page, FORM)
  await releaseForm(page, id)
  await open(page, `/forms/${id}/collect`)
  const rail = page.getByRole('navigation', { name: 'What is looked at' })
  await expect(page.getByText('No responses yet')).toBeInViewport()
  const stage = page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Collect' })
  await expect(stage).toBeInViewport({ ratio: 1 })
  await expect(rail).toBeHidden()
  await page.getByRole('button', { name: 'Views, trays, figures' }).click()
  expect(await violationsOn(page, 'rail above the table')).toEqual([])
  await rail.getByText('Question by question').click()
  await expect(rail).toBeHidden()
  await expect(page.getByRole('heading', { level: 2 }).first()).toBeInViewport()
  expect(errors).toEqual([])
})
