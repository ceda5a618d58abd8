import { expect, test, type Page } from '@playwright/test'
import { draftOf, newForm, row, saved, yesNo } from './scriptSupport'
import { choose, errorsOf, signIn } from './support'
import type { Form, Item } from '../../core/form/definition'
import { listPlaces } from '../../core/form/walk'

const item = (more: object) => more as Item
const dives: Form = {
  tobbin: 2,
  code: 'dives',
  title: 'Dives',
  sections: [
    {
      code: 'one',
      title: 'One',
      items: [
        yesNo('wet'),
        item({
          kind: 'question',
          type: 'choice',
          code: 'gas',
          label: 'Gas',
          options: ['air', 'mixed', 'other'].map(code => ({ code, label: code })),
        }),
        item({ kind: 'question', type: 'integer', code: 'depth', label: 'Depth' }),
        item({
          kind: 'group',
          code: 'plan',
          title: 'Plan',
          items: [item({ kind: 'question', type: 'text', code: 'site', label: 'Site' })],
        }),
      ],
    },
  ],
}

const begin = async (page: Page) => {
  await signIn(page)
  return newForm(page, structuredClone(dives))
}
async function openRow(page: Page, code: string) {
  await page.keyboard.press('Escape')
  await row(page, code).focus()
  await page.keyboard.press('Space')
  await expect(page.locator('.editor')).toBeVisible()
}
const shownWhen = async (page: Page, id: string, code: string) =>
  listPlaces(await draftOf(page, id)).find(p => p.code === code)?.node.shownWhen
const text = (page: Page) => page.getByRole('textbox', { name: 'Shown when, as text' })

test('a rule that is written as text stays text, is kept half-done, and is no error while it is empty', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const id = await begin(page)
  await openRow(page, 'depth')
  await page.getByRole('button', { name: '+ shown when …' }).click()
  await expect(page.getByRole('combobox', { name: 'Question', exact: true })).toBeFocused()
  await page.getByRole('button', { name: 'As text' }).click()
  await text(page).click()
  // Readable at “wet = true”, then not, then readable again: nothing flips or gets lost.
  await page.keyboard.type('wet = true and gas = "air', { delay: 5 })
  await expect(text(page)).toBeFocused()
  await expect(text(page)).toHaveText('wet = true and gas = "air"')
  await page.keyboard.press('End')
  await page.keyboard.type(' and')
  await openRow(page, 'wet')
  await openRow(page, 'depth')
  await expect(text(page)).toHaveText('wet = true and gas = "air" and')
  await text(page).click()
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Delete')
  await expect(page.locator('.editor').getByRole('alert')).toBeHidden()
  await page.keyboard.type('wet = true')
  await page.getByRole('button', { name: 'By pointing' }).click()
  await expect(page.getByLabel('Comparison')).toHaveValue('is yes')
  await saved(page)
  expect(await shownWhen(page, id, 'depth')).toBe('wet = true')
  expect(errors).toEqual([])
})

test('a rule that is half pointed at waits while other rows are looked at; a check begins with its own question', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const id = await begin(page)
  await openRow(page, 'plan')
  await page.getByRole('button', { name: '+ shown when …' }).click()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('option', { name: /depth/i })).toBeVisible()
  await expect(page.getByRole('option', { name: /site/i })).toHaveCount(0)
  await page.getByRole('option', { name: /depth/i }).click()
  await choose(page, 'Comparison', 'is at least')
  await openRow(page, 'wet')
  await openRow(page, 'plan')
  await expect(page.getByLabel('Comparison')).toHaveValue('is at least')
  await page.getByLabel('Value').fill('10')
  await page.getByLabel('Value').press('Tab')
  await saved(page)
  expect(await shownWhen(page, id, 'plan')).toBe('depth >= 10')

  await openRow(page, 'depth')
  await page.getByRole('button', { name: '+ valid when …' }).click()
  await expect(page.getByLabel('Comparison')).toHaveValue('is')
  await expect(page.getByLabel('Comparison')).toBeFocused()
  await page.getByLabel('Message of check 1').fill('At most forty.')
  await openRow(page, 'wet')
  await openRow(page, 'depth')
  await choose(page, 'Comparison', 'is at most')
  await page.getByLabel('Value').fill('40')
  await page.getByLabel('Value').press('Tab')
  await saved(page)
  expect(JSON.stringify(await draftOf(page, id))).toContain(
    '"validWhen":[{"rule":"depth <= 40","message":"At most forty."}]',
  )
  await expect(page.getByRole('button', { name: '+ valid when …' })).toBeVisible()
  expect(errors).toEqual([])
})

test('the opposite of “is Other” is none of it, whatever is added later; a blank is told, and counts when asked to', async ({
  page,
}) => {
  const id = await begin(page)
  await openRow(page, 'depth')
  await page.getByRole('button', { name: '+ shown when …' }).click()
  await page.keyboard.type('gas')
  await page.keyboard.press('Enter')
  await page.locator('.editor').getByRole('button', { name: 'other', exact: true }).click()
  await page.getByRole('button', { name: 'The opposite' }).click()
  await expect(page.getByLabel('Comparison')).toHaveValue('is answered, with none of')
  await saved(page)
  expect(await shownWhen(page, id, 'depth')).toBe('gas != null and gas != "other"')
  await expect(page.getByText('Left blank, neither this holds')).toBeVisible()
  await page.getByRole('button', { name: 'Let a blank count too' }).click()
  await saved(page)
  expect(await shownWhen(page, id, 'depth')).toBe('not(gas = "other")')
  await expect(page.getByText('Left blank, neither this holds')).toBeHidden()
})
