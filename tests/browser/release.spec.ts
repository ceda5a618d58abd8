import { expect, test } from '@playwright/test'
import { releaseForm } from '../support/release'
import { newForm, row, saved, yesNo } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

test('before it is released a draft tells what it changes since the last version', async ({ page }) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, {
    ...{ tobbin: 2, code: 'choir', title: 'Choir week' },
    sections: [
      {
        ...{ code: 's', title: 'Singing' },
        items: [
          ...['alto', 'bass', 'tenor'].map(code => yesNo(code)),
          yesNo('low', { shownWhen: 'bass = true' }),
        ],
      },
    ],
  })
  await releaseForm(page, id)
  await open(page, `/forms/${id}/write`)
  await row(page, 'tenor').focus()
  await page.keyboard.press('Alt+ArrowUp')
  await row(page, 'alto').focus()
  await page.keyboard.press('Delete')
  await row(page, 'bass').locator('.label').click()
  await page.getByLabel('Label', { exact: true }).fill('Do you sing bass?')
  await saved(page)
  const { revision } = await (await page.request.get(`/api/forms/${id}`)).json()
  const edits = [{ do: 'change', what: 'item/low', set: { shownWhen: 'bass = true or tenor = true' } }]
  await page.request.post(`/api/forms/${id}/edits`, { data: { base: revision, edits } })
  await open(page, `/forms/${id}/release`)
  const changes = page.getByRole('region', { name: 'Next version' })
  await expect(changes.getByRole('heading', { name: '4 changes since version 1' })).toBeVisible()
  await expect(changes.getByRole('listitem').filter({ hasText: 'Deletes' })).toContainText('alto')
  await expect(changes.getByRole('listitem').filter({ hasText: 'Changes' }).first()).toContainText(
    'Do you sing bass?',
  )
  const low = changes.getByRole('listitem').filter({ hasText: '“low” is asked of some who were not asked.' })
  await expect(low).toContainText('With tenor Yes')
  await expect(changes.getByText('“alto” is no longer asked of some who were asked.')).toBeVisible()
  await expect(changes.getByText('All else is the same for everyone')).toBeVisible()
  await changes
    .getByRole('listitem')
    .filter({ hasText: 'Do you sing bass?' })
    .first()
    .getByRole('button')
    .click()
  await expect(row(page, 'bass')).toBeVisible()
  expect(errors).toEqual([])
})
