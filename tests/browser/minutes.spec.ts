import { expect, test, type Page } from '@playwright/test'
import { draftOf, newForm, row, saved, yesNo } from './scriptSupport'
import { errorsOf, open, signIn } from './support'
import type { Form, Item } from '../../core/form/definition'

const lineOf = (page: Page, label: string) => page.locator('[data-address]').filter({ hasText: label })

test('a new form begins with the cursor in its first question, offers types by “/”, quotes answers, and says no faults yet', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  await page.getByLabel('Title of the new form').fill('Kiln booking')
  await page.keyboard.press('Enter')
  const line = page.getByLabel('New line', { exact: true })
  await expect(line).toBeFocused()
  await expect(page.getByRole('link', { name: /^Prove/ })).not.toContainText('fault')
  await page.keyboard.type('Your name *')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Speed in km/h')
  await expect(line).toHaveValue('Speed in km/h')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Which glaze? /')
  await page.getByRole('option', { name: 'single choice' }).click()
  await expect(line).toBeFocused()
  await page.keyboard.press('Enter')
  // A choice without choices is one that is being written.
  await expect(page.getByLabel('New choice')).toBeFocused()
  await expect(page.getByRole('link', { name: /^Prove/ })).not.toContainText('fault')
  await page.keyboard.press('Escape')
  await lineOf(page, 'Your name').focus()
  await expect(page.getByRole('link', { name: /^Prove/ })).toContainText('1 fault')
  await lineOf(page, 'Speed in').focus()
  await page.keyboard.press('Space')
  const label = page.locator('.editor').getByLabel('Label')
  await label.fill('How fast, ')
  await page.keyboard.press('End')
  await page.keyboard.type('{{')
  await expect(page.getByRole('combobox', { name: 'Question', exact: true })).toBeFocused()
  await page.keyboard.type('name')
  await page.keyboard.press('Enter')
  await expect(label).toHaveValue(/^How fast, \{\{ \w+ \}\}$/)
  await expect(label).toBeFocused()
  await saved(page)
  const draft = await draftOf(page, page.url().split('/')[4] ?? '')
  const name = draft.sections[0]?.items[0]?.code
  expect(draft.sections[0]?.items).toMatchObject([
    { label: 'Your name', required: true },
    { label: `How fast, {{ ${name} }}` },
    { label: 'Which glaze?', type: 'choice' },
  ])
  expect(errors).toEqual([])
})

test('sections fold, the keys of the script work after a click, and an outline brings its rules', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const form: Form = {
    tobbin: 2,
    code: 'rows',
    title: 'Rows',
    sections: ['one', 'two', 'three'].map(code => ({
      code,
      title: `Section ${code}`,
      items: ['a', 'b'].map(c => yesNo(`${code}_${c}`) as Item),
    })),
  }
  const id = await newForm(page, form)
  const section = (code: string) => page.locator(`[data-address="section/${code}"]`)
  await row(page, 'one_a').locator('.code-cell').click()
  await page.keyboard.press('ArrowDown')
  await expect(row(page, 'one_b')).toBeFocused()
  await page.keyboard.press('ArrowLeft')
  await expect(section('one')).toBeFocused()
  await expect(section('one')).toContainText('2 lines')
  await expect(row(page, 'one_a')).toBeHidden()
  await page.keyboard.press('ArrowDown')
  await expect(section('two')).toBeFocused()
  await section('two').getByRole('button', { name: 'Lines of Section two' }).click()
  await expect(row(page, 'two_a')).toBeHidden()
  // Whoever is pointed at shows.
  await page.keyboard.press('Control+k')
  await page.keyboard.type('two_b')
  await page.keyboard.press('Enter')
  await expect(row(page, 'two_b')).toBeVisible()

  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Paste an outline' }).click()
  await page
    .getByLabel('Outline or rows of a spreadsheet')
    .fill('1. Is anything broken? ☐ Yes ☐ No\nIf yes, what?')
  await expect(page.getByText('shown when “Is anything broken?” is yes')).toBeVisible()
  await page.getByRole('button', { name: 'Insert 2 questions' }).click()
  await saved(page)
  expect(JSON.stringify(await draftOf(page, id))).toMatch(/"shownWhen":"\w*broken = true"/)

  // What is found is replaced one by one, by case and whole words, after it was seen.
  await page.keyboard.press('Control+f')
  await page.getByRole('textbox', { name: 'Find', exact: true }).fill('one')
  await page.getByLabel('whole word').check()
  await page.getByLabel('labels').check()
  await page.getByLabel('Replace by').fill('first')
  await expect(page.getByRole('list', { name: 'What would be replaced' })).toContainText('Section first')
  await page.getByRole('button', { name: 'Replace', exact: true }).click()
  await expect(section('one')).toContainText('Section first')
  expect(errors).toEqual([])
})

test('a form that a template gives is clean and can be sent at once', async ({ page }) => {
  await signIn(page)
  await page.getByRole('button', { name: /^Order of supplies/ }).click()
  await expect(page.getByRole('link', { name: /all decided/ })).toBeVisible()
  await open(page, '/')
  await expect(page.getByRole('button', { name: /^Inspection round/ })).toBeVisible()
})
