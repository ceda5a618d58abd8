import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { newForm } from './scriptSupport'
import { errorsOf, open, responsesOf, signIn } from './support'
import { newPage } from './turnsSupport'

const FORM: Form = {
  ...{ tobbin: 2, code: 'allotment', title: 'Allotment' },
  sections: [
    {
      ...{ code: 'plot', title: 'Your plot' },
      items: [{ kind: 'question', type: 'text', code: 'crop', label: 'What do you grow?', required: true }],
    },
  ],
}

async function send(page: Page) {
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: /^Send/ }).click()
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()
}

/** A second version, in which the question asks for something else. */
async function releaseAgain(page: Page, id: string) {
  const { revision } = await (await page.request.get(`/api/forms/${id}`)).json()
  const edits = [{ do: 'change', what: 'item/crop', set: { label: 'What will you grow?' } }]
  await page.request.post(`/api/forms/${id}/edits`, { data: { base: revision, edits } })
  await releaseForm(page, id)
}

test('one address leads to the newest version; who has begun an older one finishes it', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await releaseForm(page, id)
  await open(page, `/forms/${id}/release`)
  const address = (await page.getByTestId('address').getAttribute('href')) ?? ''
  const [early, late] = [await newPage(browser), await newPage(browser)]
  await open(early, address)
  await early.getByLabel('What do you grow?').fill('Leeks')
  await releaseAgain(page, id)
  await open(late, address)
  await late.getByLabel('What will you grow?').fill('Asters')
  await open(early, address)
  await expect(early.getByText('You have begun an earlier version')).toBeVisible()
  await early.getByRole('link', { name: 'Go on with what you began' }).click()
  await expect(early.getByLabel('What do you grow?')).toHaveValue('Leeks')
  await send(early)
  await send(late)
  const { rows } = await responsesOf(page, id)
  expect(rows.map(r => r.cells.crop).sort()).toEqual(['Asters', 'Leeks'])
  expect(errors).toEqual([])
})

test('a form is closed and opened again, scheduled and limited, and says so to whoever comes', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const id = await newForm(page, FORM)
  await releaseForm(page, id)
  await open(page, `/forms/${id}/release`)
  const address = (await page.getByTestId('address').getAttribute('href')) ?? ''
  const guest = await newPage(browser)
  const opening = page.getByRole('region', { name: 'Opening' })
  await opening.getByRole('button', { name: 'Close' }).click()
  await expect(opening.getByRole('heading', { name: 'Closed for now' })).toBeVisible()
  await open(guest, address)
  await expect(guest.getByRole('heading', { name: 'Closed for now' })).toBeVisible()
  await opening.getByRole('button', { name: 'Open again' }).click()
  await expect(opening.getByRole('heading', { name: 'Open', exact: true })).toBeVisible()
  await opening.getByRole('button', { name: 'Opening and closing, limit, corrections, words' }).click()
  await opening.getByLabel('Opens', { exact: true }).fill('2099-03-01T09:00')
  await opening.getByLabel('Closes', { exact: true }).fill('2099-02-01T09:00')
  await expect(opening.getByRole('alert')).toHaveText('It has to open before it closes.')
  await opening.getByLabel('Closes', { exact: true }).fill('2099-04-01T09:00')
  await opening.getByLabel('Before it opens').fill('The plots are given out in March.')
  await opening.getByRole('button', { name: 'Save' }).click()
  await expect(opening.getByRole('heading', { name: /^Opens on 1 March 2099 at 09:00/ })).toBeVisible()
  await open(guest, address)
  await expect(guest.getByRole('heading', { name: 'Not open yet' })).toBeVisible()
  await expect(guest.getByText('The plots are given out in March.')).toBeVisible()
  await opening.getByLabel('Opens', { exact: true }).fill('')
  await opening.getByLabel('responses in all').fill('1')
  await opening.getByRole('button', { name: 'Save' }).click()
  await expect(opening.getByText('0 of 1 responses')).toBeVisible()
  await expect(opening.getByText('✓ In force')).toBeVisible()
  const other = await newPage(browser)
  await open(guest, address)
  await open(other, address)
  await guest.getByLabel('What do you grow?').fill('Leeks')
  await other.getByLabel('What do you grow?').fill('Kale')
  await send(guest)
  await other.getByRole('button', { name: 'Check your answers' }).click()
  await other.getByRole('button', { name: /^Send/ }).click()
  await expect(other.getByText('As many answers as were looked for have come in')).toBeVisible()
  await open(other, address)
  await expect(other.getByRole('heading', { name: 'Full' })).toBeVisible()
})
