import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { textOfPdf } from '../support/pdf'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { draftOf, newForm, saved } from './scriptSupport'
import { choose, errorsOf, open, signIn } from './support'
import { linksOf, newPage } from './turnsSupport'

/** A glass studio lends its furnace: whoever hires it and the studio sign the agreement. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'furnace', title: 'Furnace hire' },
  sections: [
    {
      ...{ code: 'hire', title: 'Your hire' },
      items: [{ kind: 'question', type: 'text', code: 'hirer', label: 'Your name', required: true }],
    },
    {
      ...{ code: 'studio', title: 'The studio' },
      items: [{ kind: 'question', type: 'text', code: 'bench', label: 'Which bench' }],
    },
  ],
  parties: [
    { code: 'hirer', name: 'Hirer' },
    { code: 'studio', name: 'Studio' },
  ],
  turns: [
    { code: 'ask', party: 'hirer', by: 'link', access: { hire: 'fills' } },
    { code: 'agree', party: 'studio', by: 'link', access: { hire: 'reads', studio: 'fills' } },
  ],
  documents: [
    {
      ...{ code: 'agreement', title: 'Agreement', on: 'done', fileName: 'Agreement {{ hirer }}' },
      template: {
        written: { body: [{ is: 'paragraph', runs: [{ text: '{{ hirer }} hires the furnace.' }] }] },
      },
    },
  ],
}

/** Has both turns sign the agreement. */
async function haveItSigned(page: Page) {
  await page.getByRole('tab', { name: 'Documents' }).click()
  await choose(page, 'Document 1: when', 'it is signed')
  await choose(page, 'Document 1: in which turns it is signed', 'Studio')
  await page.keyboard.press('Escape')
  await saved(page)
}

async function draw(page: Page) {
  await page.getByText('Draw', { exact: true }).click()
  const box = await page.getByRole('img', { name: 'A field to sign in' }).boundingBox()
  if (!box) throw new Error('There is no field to draw on.')
  await page.mouse.move(box.x + 30, box.y + 30)
  await page.mouse.down()
  await page.mouse.move(box.x + 120, box.y + 60, { steps: 5 })
  await page.mouse.up()
}

async function check(page: Page, name: string, buffer: Buffer) {
  await page.goto('/check')
  await page.getByLabel('The file').setInputFiles({ name, mimeType: 'application/pdf', buffer })
  return page.getByRole('status')
}

test('a document is signed by two parties, tells so at its end, and is known again unless it was changed', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await haveItSigned(page)
  expect((await draftOf(page, id)).documents?.[0]).toMatchObject({
    ...{ on: 'signed', signedBy: ['ask', 'agree'] },
  })
  const token = await releaseForm(page, id)

  const hirer = await newPage(browser)
  await open(hirer, `/f/${token}`)
  await hirer.getByLabel('Your name').fill('Ada Osier')
  await hirer.getByRole('button', { name: 'Check your answers' }).click()
  await expect(hirer.getByRole('region', { name: '“Agreement”, as you sign it' })).toContainText(
    'Ada Osier hires the furnace.',
  )
  await hirer.getByRole('button', { name: 'Sign and hand on' }).click()
  await expect(hirer.getByRole('alert')).toHaveText('Write your name to sign.')
  expect(await violationsOn(hirer, 'signing')).toEqual([])
  await hirer.getByLabel('Your name').fill('A. Osier')
  await hirer.getByLabel('As what you sign').fill('Glass blower')
  await hirer.getByRole('button', { name: 'Sign and hand on' }).click()
  await expect(hirer.getByRole('heading', { name: 'Handed on to Studio' })).toBeVisible()

  const studio = await newPage(browser)
  await open(studio, (await linksOf(page, id)).get('Studio') ?? '')
  await studio.getByRole('button', { name: 'Check your answers' }).click()
  await expect(studio.getByText('Signed by A. Osier, Glass blower')).toBeVisible()
  await studio.getByLabel('Your name').fill('B. Rill')
  await draw(studio)
  await studio.getByRole('button', { name: 'Sign and hand on' }).click()
  await expect(studio.getByRole('heading', { name: 'Thank you' })).toBeVisible()

  await open(page, `/forms/${id}/collect`)
  await page.getByRole('row', { name: /Ada Osier/ }).click()
  const made = page.getByRole('region', { name: 'Documents' })
  await expect(made).toContainText('Signed by B. Rill in “Studio”')
  const download = page.waitForEvent('download')
  await made.getByRole('link', { name: 'Agreement Ada Osier.docx as PDF' }).click()
  const file = await readFile(await (await download).path())
  expect(textOfPdf(file)).toMatch(/Ada Osier hires.*Signatures.*A\. Osier, Glass blower.*B\. Rill/s)

  const stranger = await newPage(browser)
  await expect(await check(stranger, 'agreement.pdf', file)).toContainText('“agreement.pdf” is unchanged.')
  await expect(stranger.getByRole('status')).toContainText('B. Rill')
  expect(await violationsOn(stranger, 'checked file')).toEqual([])
  const changed = Buffer.concat([file, Buffer.from('\n')])
  await expect(await check(stranger, 'changed.pdf', changed)).toContainText('is not known here')
  expect(errors).toEqual([])
})
