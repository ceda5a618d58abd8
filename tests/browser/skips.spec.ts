import { expect, test } from '@playwright/test'
import { releaseForm } from '../support/release'
import { draftOf, newForm, row, saved, yesNo } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

const FORM = {
  tobbin: 2 as const,
  code: 'recall',
  title: 'Recall at the practice',
  messages: { notAnEmail: 'We can’t write to this address.' },
  sections: [
    {
      code: 'pain',
      title: 'Pain',
      items: [
        yesNo('in_pain', { label: 'Are you in pain?', required: true }),
        {
          kind: 'question' as const,
          code: 'since',
          type: 'date' as const,
          label: 'Since when?',
          required: true as const,
          atMost: 'today()',
          messages: { tooLate: 'Pain that is still to come can’t be treated.' },
        },
        yesNo('swollen', { label: 'Is it swollen?' }),
      ],
    },
    {
      code: 'reach',
      title: 'How we reach you',
      items: [
        yesNo('moved', { label: 'Have you moved?' }),
        { kind: 'question' as const, code: 'mail', type: 'email' as const, label: 'E-mail' },
      ],
    },
  ],
}

test('a question leads on past what lies between, into the midst of a later section', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await row(page, 'in_pain').locator('.label').click()
  await page.getByRole('button', { name: '+ skip' }).click()
  const target = page.getByLabel('Where skip 1 goes on')
  await target.fill('E-mail')
  await page.getByRole('option', { name: '2.2 E-mail' }).click()
  await expect(page.getByText('always, once this question is asked')).toBeVisible()
  await saved(page)
  const [question] = (await draftOf(page, id)).sections[0]?.items ?? []
  expect(question).toMatchObject({ skips: [{ to: 'item/mail' }] })
  // It always leads on: what lies between is said to be lost.
  await expect(page.getByRole('button', { name: /fault/ }).first()).toBeVisible()
  const skips = [{ when: 'in_pain = false', to: 'item/mail' }]
  const { draft, revision } = await (await page.request.get(`/api/forms/${id}`)).json()
  expect(draft.code).toBe('recall')
  const edit = { do: 'change', what: 'item/in_pain', set: { skips } }
  const made = await page.request.post(`/api/forms/${id}/edits`, { data: { base: revision, edits: [edit] } })
  expect(made.status()).toBe(200)
  const address = `/f/${await releaseForm(page, id)}`
  const guest = await (await browser.newContext()).newPage()
  const guestErrors = errorsOf(guest)
  await open(guest, address)
  await guest.getByRole('radio', { name: 'No' }).first().check()
  await expect(guest.getByLabel(/Since when/)).toHaveCount(0)
  await guest.getByRole('radio', { name: 'Yes' }).first().check()
  await guest.getByLabel(/Since when/).fill('2099-12-31')
  await guest.getByLabel(/Since when/).press('Tab')
  await guest.getByRole('button', { name: 'Next' }).click()
  await expect(guest.getByText('Pain that is still to come can’t be treated.', { exact: true })).toBeVisible()
  await guest.getByRole('radio', { name: 'No' }).first().check()
  await guest.getByRole('button', { name: 'Next' }).click()
  await expect(guest.getByRole('heading', { name: 'How we reach you' })).toBeVisible()
  await expect(guest.getByText('Have you moved?')).toHaveCount(0)
  await guest.getByLabel('E-mail').fill('ada at wherry')
  await guest.getByLabel('E-mail').press('Tab')
  await expect(guest.getByText('We can’t write to this address.')).toBeVisible()
  expect([...errors, ...guestErrors]).toEqual([])
})
