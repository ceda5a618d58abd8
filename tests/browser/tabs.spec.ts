import { expect, test } from '@playwright/test'
import { draftOf, newForm, row, saved, yesNo } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

test('a question that is deleted in another tab while it is written in comes back with its text; undo survives a reload', async ({
  page,
  context,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, {
    tobbin: 2,
    code: 'tabs',
    title: 'Tabs',
    sections: [{ code: 's', title: 'S', items: [yesNo('alpha'), yesNo('bravo')] }],
  })
  const other = await context.newPage()
  await open(other, `/forms/${id}/write`)
  await row(page, 'alpha').locator('.label').click()
  await page.locator('.editor').getByLabel('Label').fill('Is the keel sound?')
  await saved(page)
  await expect(row(other, 'alpha')).toContainText('Is the keel sound?')
  await row(other, 'alpha').focus()
  await other.keyboard.press('Delete')
  await expect(page.getByRole('alert')).toContainText(
    'deleted “Is the keel sound?” while it was being written',
  )
  await page.getByRole('button', { name: 'Put it back' }).click()
  await expect(row(other, 'alpha')).toContainText('Is the keel sound?')

  // Both changed one label: whoever was earlier is told too.
  await row(page, 'bravo').locator('.label').click()
  await page.locator('.editor').getByLabel('Label').fill('First')
  await expect(row(other, 'bravo')).toContainText('First')
  await row(other, 'bravo').locator('.label').click()
  await other.locator('.editor').getByLabel('Label').fill('Second')
  await saved(other)
  await expect(page.getByRole('alert')).toContainText('right after you')
  await page.getByRole('button', { name: 'Keep theirs' }).click()

  // Undo after a reload takes back what is one’s own, and leaves what came from the other tab.
  await saved(page)
  await page.reload()
  const undo = page.getByRole('button', { name: 'Undo' })
  await expect(undo).toBeEnabled()
  for (let i = 0; i < 20 && (await undo.isEnabled()); i++) await undo.click()
  await saved(page)
  expect((await draftOf(page, id)).sections[0]?.items.map(i => 'label' in i && i.label)).toEqual(['Second'])
  expect(errors).toEqual([])
})
