import { expect, test } from '@playwright/test'
import { releaseForm } from '../support/release'
import { open, responsesOf, signIn } from './support'

const COSTS = {
  tobbin: 2,
  code: 'costs',
  title: 'Costs',
  sections: [
    {
      code: 'sums',
      title: 'Sums',
      items: [
        { kind: 'question', code: 'price', label: 'Price', type: 'money', currency: 'EUR', required: true },
        { kind: 'question', code: 'draught', label: 'Draught', type: 'decimal', required: true },
        { kind: 'note', code: 'told', text: 'You ask for {{ price | money }}.' },
      ],
    },
  ],
}

test('numbers count as people type them: shown as understood, or refused with both readings', async ({
  page,
}) => {
  await signIn(page)
  const { id } = await (await page.request.post('/api/forms', { data: { definition: COSTS } })).json()
  await open(page, `/f/${await releaseForm(page, id)}`)
  await page.getByLabel('Price, in EUR').fill('1,000')
  await expect(page.getByText('Understood as 1000.00 EUR')).toBeVisible()
  await expect(page.getByText('You ask for 1000.00 EUR.')).toBeVisible()
  const draught = page.getByLabel('Draught')
  await draught.fill('1,234')
  await draught.press('Tab')
  await expect(page.getByText('“1,234” can be read as 1234 or as 1.234: type one of these.')).toBeVisible()
  await draught.fill('1.234')
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Send' }).click()
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  const { rows } = await responsesOf(page, id)
  const { price, draught: depth } = rows[0]?.cells ?? {}
  expect([price?.replaceAll(/\s/g, ' '), depth]).toEqual(['1000.00 EUR', '1.234'])
})
