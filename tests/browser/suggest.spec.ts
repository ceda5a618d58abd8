import { expect, test, type Browser, type Page } from '@playwright/test'
import type { Right } from '#shared/api/sharing'
import { draftOf, newForm, row, saved, yesNo } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

const PASSWORD = 'a long enough password'
const FORM = {
  tobbin: 2 as const,
  code: 'rounds',
  title: 'Rounds',
  sections: [
    {
      code: 's',
      title: 'At the bed',
      items: [yesNo('pain'), yesNo('slept'), yesNo('nurse', { shownWhen: 'pain = true' })],
    },
  ],
}

/** Somebody new, in a browser of their own, with whom a form is shared. */
async function colleague(browser: Browser, owner: Page, form: string, rights: Right[]): Promise<Page> {
  const email = `kit-${Date.now()}@wherry.example`
  const data = { name: 'Kit Lowry', email, role: 'member' }
  const { link } = await (await owner.request.post('/api/people', { data })).json()
  const page = await (await browser.newContext()).newPage()
  const joined = await page.request.post(link.replace('/key/', '/api/keys/'), {
    data: { password: PASSWORD },
  })
  const { user } = await joined.json()
  const share = { holder: { kind: 'person', id: user.id }, rights }
  await owner.request.put(`/api/forms/${form}/shares`, { data: share })
  await open(page, `/forms/${form}/write`)
  return page
}

const held = (page: Page) => page.getByRole('region', { name: 'What you have not proposed yet' })
const pane = (page: Page) => page.getByRole('region', { name: 'Suggestions' })
async function writeHelp(page: Page, code: string, words: string) {
  await row(page, code).locator('.label').click()
  await page.getByLabel('Help', { exact: true }).fill(words)
  await page.keyboard.press('Escape')
}
async function deleteRow(page: Page, code: string) {
  await row(page, code).focus()
  await page.keyboard.press('Delete')
}

test('changes are proposed, proved, taken and declined one by one', async ({ page, browser }) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  const kit = await colleague(browser, page, id, ['suggest'])
  await writeHelp(kit, 'slept', 'More than four hours in a row')
  await deleteRow(kit, 'pain')
  await kit.getByRole('button', { name: /Delete (?:it|them|anyway)/ }).click()
  await expect(held(kit)).toContainText('2 changes of yours')
  // Nothing of it has left this browser; a reload keeps it, and undo.
  expect(await draftOf(page, id)).toEqual(FORM)
  await kit.reload()
  await expect(held(kit)).toContainText('2 changes of yours')
  await expect(row(kit, 'pain')).toHaveCount(0)
  await deleteRow(kit, 'slept')
  await kit.keyboard.press('Control+z')
  await expect(row(kit, 'slept')).toBeVisible()
  await expect(held(kit)).toContainText('2 changes of yours')
  await held(kit).getByRole('button', { name: 'Propose…' }).click()
  const dialog = kit.getByRole('dialog', { name: 'Propose' })
  await expect(dialog).toContainText('Deletes 1.1 pain')
  await dialog.getByLabel('Why').fill('Pain is on the chart')
  await dialog.getByRole('button', { name: 'Propose' }).click()
  await expect(held(kit)).toHaveCount(0)
  await expect(row(kit, 'pain')).toBeVisible()

  await open(page, `/forms/${id}/write?view=suggestions`)
  const help = pane(page)
    .getByRole('listitem', { name: 'Proposal by Kit Lowry' })
    .filter({ hasText: 'Changes 1.2 slept' })
  const gone = pane(page)
    .getByRole('listitem', { name: 'Proposal by Kit Lowry' })
    .filter({ hasText: 'Deletes 1.1 pain' })
  await expect(help).toContainText('nothing is found that is not found without it')
  await expect(gone).toContainText(/comes\s*✕\s*fault: .*pain/)
  await help.getByRole('button', { name: 'Take it' }).click()
  await expect(help).toHaveCount(0)
  await gone.getByLabel('A word back to Kit Lowry').fill('The nurse’s question needs it')
  await gone.getByRole('button', { name: 'Decline' }).click()
  await expect(pane(page)).toContainText('Nothing waits here')
  expect(JSON.stringify(await draftOf(page, id))).toContain('More than four hours')
  await page.getByRole('button', { name: 'Undo' }).click()
  await saved(page)
  expect(await draftOf(page, id)).toEqual(FORM)

  await open(kit, `/forms/${id}/write?view=suggestions`)
  await pane(kit)
    .getByText(/^Decided lately \(2\)/)
    .click()
  await expect(pane(kit)).toContainText('The nurse’s question needs it')
  expect(errors).toEqual([])
})

test('a remark stands at its row until it is settled', async ({ page, browser }) => {
  await signIn(page)
  const id = await newForm(page, FORM)
  const kit = await colleague(browser, page, id, ['suggest'])
  await row(kit, 'slept').locator('.label').click()
  await kit.getByRole('button', { name: 'Remark…' }).click()
  await kit.getByLabel('Your remark').fill('Since when?')
  await kit.getByRole('dialog').getByRole('button', { name: 'Remark', exact: true }).click()
  await expect(row(kit, 'slept').getByTitle('1 remark')).toBeVisible()
  await open(page, '/')
  await page.getByRole('link', { name: '1 suggestion' }).first().click()
  await expect(pane(page)).toContainText('Since when?')
  await pane(page).getByRole('button', { name: '1.2 slept' }).click()
  await row(page, 'slept').locator('.label').click()
  await page
    .getByRole('listitem', { name: 'Remark by Kit Lowry' })
    .getByRole('button', { name: 'Settled' })
    .click()
  await expect(row(page, 'slept').getByTitle('1 remark')).toHaveCount(0)
})

test('what others save comes beneath what is not proposed yet', async ({ page, browser }) => {
  await signIn(page)
  const id = await newForm(page, FORM)
  const kit = await colleague(browser, page, id, ['suggest'])
  await writeHelp(kit, 'slept', 'Four hours')
  await writeHelp(kit, 'nurse', 'At the bed')
  await expect(held(kit)).toContainText('2 changes of yours')
  await page.reload()
  await deleteRow(page, 'nurse')
  await saved(page)
  await expect(row(kit, 'nurse')).toHaveCount(0)
  await expect(held(kit)).toContainText('1 change of yours')
  await held(kit).getByRole('button', { name: 'Throw away…' }).click()
  await kit.getByRole('alertdialog').getByRole('button', { name: 'Throw away' }).click()
  await expect(held(kit)).toHaveCount(0)
})
