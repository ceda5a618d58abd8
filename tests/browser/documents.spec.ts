import { readFile } from 'node:fs/promises'
import { expect, test, type Browser, type Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import mammoth from 'mammoth'
import type { Form } from '../../core/form/definition'
import { renameEdits } from '../../core/form/rename'
import { docxOf, paragraphOf, tableOf } from '../support/docx'
import { textOfPdf } from '../support/pdf'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { newForm, saved } from './scriptSupport'
import { errorsOf, open, ready, signIn } from './support'

/** A bakery’s order: cakes by the piece, delivered or fetched, paid before they are baked. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'cakes', title: 'Cake order' },
  sections: [
    {
      ...{ code: 'order', title: 'Your order' },
      items: [
        { kind: 'question', type: 'text', code: 'guest', label: 'Your name', required: true },
        { kind: 'question', type: 'yesNo', code: 'brought', label: 'Shall we bring it?', required: true },
        {
          ...{ kind: 'group', code: 'cakes', title: 'Cakes', repeat: { min: 1, max: 5 } },
          items: [
            { kind: 'question', type: 'text', code: 'kind', label: 'Which cake?', required: true },
            {
              kind: 'question',
              type: 'integer',
              code: 'pieces',
              label: 'Pieces',
              required: true,
              min: 1,
              max: 90,
            },
          ],
        },
        {
          ...{ kind: 'question', type: 'value', code: 'price', label: 'Price', currency: 'EUR' },
          value: 'if brought then 15.5 else 10',
        },
      ],
    },
  ],
  payment: { amount: 'price', title: 'Cakes for {{ guest }}', completes: true },
}
const ANSWERS = {
  guest: 'Zoe Ash',
  brought: true,
  cakes: [
    { kind: 'Plum', pieces: 12 },
    { kind: 'Poppy', pieces: 8 },
  ],
}
const file = (name: string, body: string) => ({
  ...{ name, buffer: Buffer.from(docxOf(body)) },
  mimeType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
})
const SLIP = [
  paragraphOf('Slip for {{ gu', 'est }}'),
  tableOf(['{{#each cakes}}{{ kind }}', '{{ pieces }}{{/each}}']),
  paragraphOf('{{#when brought = true}}We bring it.{{else}}You fetch it.{{/when}} {{ price | money }}'),
].join('')

/** Whoever has ordered pays at the service. */
async function payAsGuest(browser: Browser, link: string) {
  const guest = await (await browser.newContext()).newPage()
  await open(guest, link)
  await guest.getByRole('button', { name: 'Pay' }).click()
  await expect(guest.getByRole('status')).toHaveText('paid')
  expect(await violationsOn(guest, 'payment')).toEqual([])
}

const textOfDocx = async (bytes: Buffer) =>
  (await mammoth.extractRawText({ buffer: bytes })).value.split('\n').filter(Boolean)

/** All documents of a form’s responses as PDF files: their names and texts. */
async function takeOutPdfs(page: Page, id: string): Promise<[string, string][]> {
  const archive = await page.request.get(`/api/forms/${id}/export?format=documentsPdf`)
  return Object.entries(unzipSync(await archive.body())).map(([name, bytes]) => [name, textOfPdf(bytes)])
}

/** A question is called otherwise: the template that is downloaded says so, and so does the list of those brought in. */
async function followTheName(page: Page, id: string) {
  const { draft, revision: base } = await (await page.request.get(`/api/forms/${id}`)).json()
  expect(draft.documents).toHaveLength(1)
  const edits = renameEdits(draft, 'item/guest', 'visitor')
  const kept = await page.request.post(`/api/forms/${id}/edits`, { data: { base, edits } })
  expect(kept.status()).toBe(200)
  await open(page, `/forms/${id}/write`)
  await page.getByRole('tab', { name: 'Documents' }).click()
  await page.getByRole('button', { name: 'Files brought in before' }).click()
  await expect(page.getByRole('link', { name: 'Slip.docx' })).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Download the template of number 1' }).click()
  const [first] = await textOfDocx(await readFile(await (await download).path()))
  expect(first).toBe('Slip for {{ visitor }}')
}

/** What is wrong with a template is told, until it is mended. */
async function bringSlipIn(page: Page) {
  const bring = page.getByLabel('Bring a document in')
  await bring.setInputFiles(
    file('Slip.docx', paragraphOf('For {{ gest }}') + paragraphOf('{{#when brouht}}x')),
  )
  await expect(page.getByText('Slip.docx was not kept: 3 mistakes in it')).toBeVisible()
  await bring.setInputFiles(file('Slip.docx', paragraphOf('For {{ gest }}, cake')))
  await expect(page.getByText('Is guest meant?')).toBeVisible()
  await bring.setInputFiles(file('Slip.docx', SLIP))
  await expect(page.getByText('4 quotes, 1 clause, 1 loop')).toBeVisible()
}

test('a document is brought in, told what is wrong with it, mended, released, and made of a response once it is paid', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await page.getByRole('tab', { name: 'Documents' }).click()
  await bringSlipIn(page)
  expect(await violationsOn(page, 'documents')).toEqual([])
  await page.getByLabel('Document 1: what its file is called').fill('Slip {{ guest }}')
  await saved(page)
  const token = await releaseForm(page, id)
  const begunOn = new Date().toISOString().slice(0, 10)
  const sending = { release: 1, key: `cake-${id}`, begunOn, answers: ANSWERS }
  const sent = await (await page.request.post(`/api/answer/${token}`, { data: sending })).json()
  expect(sent.payment).toMatchObject({
    amount: '15.5',
    currency: 'EUR',
    title: 'Cakes for Zoe Ash',
    state: 'open',
  })
  const list = async (state: string) =>
    (await (await page.request.get(`/api/forms/${id}/responses?state=${state}`)).json()).rows
  expect([(await list('unpaid')).length, (await list('done')).length]).toEqual([1, 0])

  await payAsGuest(browser, sent.payment.link)
  await open(page, `/forms/${id}/collect`)
  await page.getByRole('row', { name: /Zoe Ash/ }).click()
  const beside = page.getByRole('complementary', { name: 'One response' })
  const payment = beside.getByRole('region', { name: 'Payment' })
  await expect(payment.getByText('15.50 EUR')).toBeVisible()
  await expect(async () => {
    await page.reload()
    await ready(page)
    await page.getByRole('row', { name: /Zoe Ash/ }).click()
    await expect(beside.getByRole('link', { name: 'Slip Zoe Ash.docx', exact: true })).toBeVisible({
      timeout: 2_000,
    })
  }).toPass()
  const download = page.waitForEvent('download')
  await beside.getByRole('link', { name: 'Slip Zoe Ash.docx', exact: true }).click()
  expect(await textOfDocx(await readFile(await (await download).path()))).toEqual([
    ...['Slip for Zoe Ash', 'Plum', '12', 'Poppy', '8'],
    'We bring it. 15.50\u00a0EUR',
  ])
  await payment.getByRole('button', { name: 'Pay back' }).click()
  await expect(payment.getByText('paid back', { exact: true })).toBeVisible()
  expect(await takeOutPdfs(page, id)).toEqual([
    ['1/Slip Zoe Ash.pdf', expect.stringContaining('We bring it.')],
  ])
  await followTheName(page, id)
  expect(errors).toEqual([])
})
