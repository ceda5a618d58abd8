import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from '@playwright/test'
import ExcelJS from 'exceljs'
import type { Form } from '../../core/form/definition'
import type { Answers } from '../../core/form/answers'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { newForm } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

const STEPS = ['calm', 'wild'].map(code => ({ code, label: `quite ${code}` }))
/** A count of nests: trees, each with its nests, and how the birds were. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'nests', title: 'Nest count' },
  sections: [
    {
      ...{ code: 'wood', title: 'The wood' },
      items: [
        { kind: 'question', type: 'text', code: 'name', label: 'Which wood?', required: true },
        {
          ...{ kind: 'question', type: 'grid', code: 'mood', label: 'How were they?' },
          rows: ['rooks', 'herons'].map(code => ({ code, label: `The ${code}` })),
          options: STEPS,
        },
        {
          ...{ kind: 'group', code: 'trees', title: 'Trees', repeat: { min: 0, max: 9 } },
          items: [
            { kind: 'question', type: 'text', code: 'tree', label: 'Tree', required: true },
            { kind: 'question', type: 'integer', code: 'nests', label: 'Nests', min: 0, max: 60 },
          ],
        },
      ],
    },
  ],
}
const SENT: Answers[] = [
  { name: 'Alder carr', mood: { rooks: 'calm', herons: 'wild' }, trees: [{ tree: 'Ash', nests: 4 }] },
  {
    name: 'Beech hanger',
    trees: [
      { tree: 'Beech', nests: 2 },
      { tree: 'Larch', nests: 1 },
    ],
  },
]

async function collected(page: Page): Promise<string> {
  await signIn(page)
  const id = await newForm(page, FORM)
  const token = await releaseForm(page, id)
  const begunOn = new Date().toISOString().slice(0, 10)
  for (const [i, answers] of SENT.entries()) {
    const sending = { release: 1, key: `nests-${id}-${i}`, begunOn, answers }
    expect((await page.request.post(`/api/answer/${token}`, { data: sending })).status()).toBe(200)
  }
  await open(page, `/forms/${id}/collect`)
  return id
}

/** The workbook that is taken out, changed as in a spreadsheet. */
async function changedWorkbook(page: Page, change: (book: ExcelJS.Workbook) => void): Promise<Buffer> {
  await page.getByRole('button', { name: 'Take out …' }).click()
  const downloading = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Workbook (XLSX)' }).click()
  const bytes = await readFile(await (await downloading).path())
  await page.keyboard.press('Escape')
  const book = new ExcelJS.Workbook()
  await book.xlsx.load(new Uint8Array(bytes).buffer)
  change(book)
  return Buffer.from(await book.xlsx.writeBuffer())
}

/** The column of a sheet with a head. */
function columnOf(sheet: ExcelJS.Worksheet, head: string): number {
  for (let column = 1; column <= sheet.columnCount; column += 1)
    if (sheet.getRow(1).getCell(column).value === head) return column
  throw new Error(`There is no column “${head}”.`)
}

function recount(book: ExcelJS.Workbook) {
  const [responses, trees] = [book.getWorksheet('Responses'), book.getWorksheet('Trees')]
  if (!responses || !trees) throw new Error('A sheet is missing.')
  const mood = columnOf(responses, 'How were they?')
  responses.getRow(2).getCell(mood).value = 'The rooks: quite wild; The herons: quite wild'
  const anew = responses.addRow(['new 1'])
  anew.getCell(columnOf(responses, 'Which wood?')).value = 'Crow wood'
  trees.getRow(2).getCell(columnOf(trees, 'Nests')).value = 7
  trees.addRow(['new 1', null, 'Oak', 3])
  trees.addRow([77, 1, 'Elm', 9])
}

test('a workbook comes back in with its entries and its grids, as they were changed', async ({ page }) => {
  const errors = errorsOf(page)
  const id = await collected(page)
  const buffer = await changedWorkbook(page, recount)
  await page.getByRole('button', { name: 'Bring in …' }).click()
  const mimeType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
  await page.getByLabel('File with responses').setInputFiles({ name: 'nests.xlsx', mimeType, buffer })
  const dialog = page.getByRole('dialog', { name: 'Bring responses in' })
  const rows = dialog.getByRole('list', { name: 'Rows' })
  await dialog.getByText('1 changed').click()
  await expect(rows).toContainText('Nests: 4 → 7')
  await dialog.getByText('1 new').click()
  await expect(rows).toContainText('Oak')
  await expect(dialog.getByText('1 as they are')).toBeVisible()
  await expect(dialog.getByText('1 entry in the sheets of what repeats belongs to no row')).toBeVisible()
  expect(await violationsOn(page, 'workbook brought in')).toEqual([])
  await dialog.getByRole('button', { name: 'Bring 2 in' }).click()
  await expect(dialog.getByText('1 came in, 1 were corrected')).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  const lines = await (await page.request.get(`/api/forms/${id}/export?format=jsonl`)).text()
  const stored = lines
    .trim()
    .split('\n')
    .map(line => (JSON.parse(line) as { answers: Answers }).answers)
  expect(stored).toEqual([
    { name: 'Alder carr', mood: { rooks: 'wild', herons: 'wild' }, trees: [{ tree: 'Ash', nests: 7 }] },
    SENT[1],
    { name: 'Crow wood', trees: [{ tree: 'Oak', nests: 3 }] },
  ])
  expect(errors).toEqual([])
})
