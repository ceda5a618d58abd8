import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { textOfPdf } from '../support/pdf'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { draftOf, newForm, saved } from './scriptSupport'
import { errorsOf, giveFiles, open, signIn } from './support'

/** A library’s request for a room. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'room', title: 'Room request' },
  sections: [
    {
      ...{ code: 'asked', title: 'Your request' },
      items: [
        { kind: 'question', type: 'text', code: 'guest', label: 'Your name', required: true },
        {
          kind: 'question',
          type: 'integer',
          code: 'chairs',
          label: 'Chairs',
          min: 1,
          max: 80,
          required: true,
        },
        { kind: 'question', type: 'file', code: 'plan', label: 'A plan' },
      ],
    },
  ],
}

/** One black point. */
const POINT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNgAAAAAgABSK+kcQAAAABJRU5ErkJggg=='

/** Writes a confirmation with a tag, clauses and a table, and offers it. */
async function writeConfirmation(page: Page) {
  await page.getByRole('button', { name: 'Write one here' }).click()
  const paper = page.getByRole('textbox', { name: 'Document 1', exact: true })
  await paper.click()
  await page.keyboard.type('For ')
  await page.getByRole('button', { name: 'Put the tag of Your name in' }).click()
  await page.getByRole('button', { name: 'Heading 1' }).click()
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  await page.keyboard.type(
    '{{#when chairs > 20}}The hall.{{/when}}{{#when chairs < 20}}The small room.{{/when}}',
  )
  await page.getByRole('button', { name: 'Table' }).click()
  await page.keyboard.type('Chairs')
  await page.keyboard.press('Tab')
  await page.keyboard.type('{{ chairs }}')
  const tags = page.getByRole('region', { name: 'Tags' })
  await tags.getByText('{{ plan }}').dragTo(paper.locator('> p').last())
  await page.getByLabel('Document 1: what it is called').fill('Confirmation')
  await page.getByLabel('Document 1: what its file is called').fill('Room for {{ guest }}')
  await page.getByLabel('Document 1: offered to whoever answers').check()
  await page.getByLabel('Document 1: below each page').fill('Reading Room')
}

test('a document is written here, shown with the practice answers, proven, and fetched as a PDF by whoever answers', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await page.getByRole('tab', { name: 'Documents' }).click()
  await writeConfirmation(page)
  await page.getByRole('button', { name: 'With the practice answers' }).click()
  const preview = page.getByRole('region', { name: '“Confirmation” with the practice answers' })
  await expect(preview.getByText('‹Your name›')).toBeVisible()
  await page.getByRole('textbox', { name: /Your name/ }).fill('Ada Osier')
  await expect(preview.getByText('For Ada Osier')).toBeVisible()
  await expect(preview.getByText('‹Chairs›', { exact: true })).toBeVisible()
  await expect(preview.getByText('‹a clause rests on ‹Chairs››')).toBeVisible()
  await expect(preview.getByText('‹A plan›')).toBeVisible()
  const picture = { name: 'plan.png', mimeType: 'image/png', buffer: Buffer.from(POINT, 'base64') }
  await giveFiles(page, 'A plan optional', picture)
  await expect(preview.getByRole('img')).toBeVisible()
  expect(await violationsOn(page, 'written document')).toEqual([])
  await saved(page)
  const [document] = (await draftOf(page, id)).documents ?? []
  expect(document?.template).toMatchObject({
    written: {
      footer: 'Reading Room',
      body: [{ level: 1 }, { is: 'paragraph' }, { is: 'table' }, { runs: [{ text: '{{ plan }}' }] }],
    },
  })

  const token = await releaseForm(page, id)
  const guest = await (await browser.newContext()).newPage()
  await open(guest, `/f/${token}`)
  await guest.getByLabel('Your name').fill('Bo Rill')
  await guest.getByLabel('Chairs').fill('20')
  await guest.getByRole('button', { name: 'Check your answers' }).click()
  await guest.getByRole('button', { name: 'Send' }).click()
  const offered = guest.getByRole('region', { name: 'Documents for you' })
  const download = guest.waitForEvent('download')
  await offered.getByRole('button', { name: 'Confirmation (PDF)' }).click()
  const file = await download
  expect(file.suggestedFilename()).toBe('Room for Bo Rill.pdf')
  const text = textOfPdf(await readFile(await file.path()))
  expect(text).toContain('For Bo Rill')
  expect(text).toContain('Reading Room')
  expect(text).not.toMatch(/hall|small room/)
  expect(await violationsOn(guest, 'document offered')).toEqual([])
  await open(page, `/forms/${id}/collect`)
  await page.getByRole('row', { name: /Bo Rill/ }).click()
  await expect(page.getByRole('link', { name: 'Room for Bo Rill.docx', exact: true })).toBeVisible()
  expect(errors).toEqual([])
})
