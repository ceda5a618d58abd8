import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { draftOf, newForm, row, saved } from './scriptSupport'
import { choose, errorsOf, open, responsesOf, signIn } from './support'

/** A claim for the costs of a voyage. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'voyage_costs', title: 'Voyage costs' },
  sections: [
    {
      code: 'costs',
      title: 'Costs',
      items: [
        {
          ...{ kind: 'question', type: 'money', currency: 'EUR' },
          code: 'fuel',
          label: 'Fuel',
          required: true,
        },
        { kind: 'question', type: 'text', code: 'why', label: 'Why so dear?', required: true },
      ],
    },
  ],
}

/** The currencies are written in the row; the rule names the amount in one. */
async function write(page: Page, id: string) {
  await open(page, `/forms/${id}/write`)
  await row(page, 'fuel').locator('.label').click()
  const others = page.getByLabel('or one of')
  await others.fill('gbp, NOK')
  await others.press('Enter')
  await expect(others).toHaveValue('GBP, NOK')
  await saved(page)
  expect((await draftOf(page, id)).sections[0]?.items[0]).toMatchObject({
    currency: 'EUR',
    currencies: ['EUR', 'GBP', 'NOK'],
  })
  const draft = await draftOf(page, id)
  const [costs] = draft.sections
  const items = (costs?.items ?? []).map(item =>
    item.code === 'why' ? { ...item, shownWhen: 'fuel.GBP > 100 or fuel.NOK > 1200' } : item,
  )
  return { ...draft, sections: [{ ...costs, items }] }
}

test('an amount is given in a currency that the respondent chooses, and rules compare within one', async ({
  page,
  browser,
  request,
}) => {
  await signIn(page)
  const definition = await write(page, await newForm(page, FORM))
  const { id } = await (await page.request.post('/api/forms', { data: { definition } })).json()
  const token = await releaseForm(page, id)
  const guest = await (await browser.newContext({ viewport: { width: 360, height: 700 } })).newPage()
  const errors = errorsOf(guest)
  await open(guest, `/f/${token}`)
  await guest.getByRole('textbox', { name: /^Fuel/ }).fill('110')
  await expect(guest.getByLabel('Why so dear?')).toBeHidden()
  await choose(guest, 'Fuel: currency', 'NOK')
  await expect(guest.getByLabel('Why so dear?')).toBeHidden()
  await choose(guest, 'Fuel: currency', 'GBP')
  await guest.getByLabel('Why so dear?').fill('A long way round.')
  // The chosen currency is there again after a reload.
  await guest.reload()
  await expect(guest.getByLabel('Fuel: currency')).toHaveValue('GBP')
  await expect(guest.getByRole('textbox', { name: /^Fuel/ })).toHaveValue('110')
  await guest.getByRole('button', { name: 'Check your answers' }).click()
  await expect(guest.getByText('110.00 GBP')).toBeVisible()
  await guest.getByRole('button', { name: 'Send' }).click()
  await expect(guest.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  expect((await responsesOf(page, id)).rows[0]?.cells.fuel).toBe('110.00\u00a0GBP')
  const forged = { fuel: { amount: '5', currency: 'USD' } }
  const begunOn = new Date().toISOString().slice(0, 10)
  const data = { release: 1, key: 'key-of-currencies', begunOn, answers: forged }
  expect((await request.post(`/api/answer/${token}`, { data })).status()).toBe(422)
  expect(errors).toEqual([])
})
