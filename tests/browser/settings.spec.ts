import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { draftOf, newForm } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

const FORM: Form = {
  tobbin: 2,
  code: 'seeds',
  title: 'Seed swap',
  sections: [
    {
      code: 'bring',
      title: 'What you bring',
      items: [
        { kind: 'question', type: 'date', code: 'day', label: 'Day of the swap' },
        { kind: 'question', type: 'decimal', code: 'weight', label: 'Weight' },
        { kind: 'note', code: 'late', text: 'Seeds only.', shownWhen: 'day > @"2026-11-27"' },
      ],
    },
  ],
  closings: ['first', 'second', 'third'].map(code => ({ code, title: `The ${code}` })),
}

/** A comma is read as the point; what is typed into one field is one step, taken back at once. */
async function numbersAreTyped(page: Page, id: string) {
  await open(page, `/forms/${id}/write`)
  await page.locator('[data-address="item/weight"] .label').click()
  const least = page.getByLabel('least', { exact: true })
  await least.pressSequentially('1,25')
  const weight = async () => (await draftOf(page, id)).sections[0]?.items[1]
  await expect.poll(weight).toMatchObject({ min: 1.25 })
  await least.press('Control+z')
  await expect(least).toHaveValue('')
  await expect.poll(weight).not.toHaveProperty('min')
}

test('closings are put in order by their handle; numbers are typed with a comma too; a day is typed and picked so that it reads one way only', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  const order = async () => ((await draftOf(page, id)).closings ?? []).map(c => c.code)
  await open(page, `/forms/${id}/write?view=settings`)
  // By keys: the handle keeps the focus, and the ends are ends.
  await page.getByRole('button', { name: 'Move closing 1' }).focus()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('button', { name: 'Move closing 2' })).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await expect.poll(order).toEqual(['second', 'third', 'first'])
  // By dragging.
  await page.getByRole('button', { name: 'Move closing 3' }).dragTo(page.getByLabel('Closing 1: title'))
  await expect.poll(order).toEqual(['first', 'second', 'third'])

  await numbersAreTyped(page, id)

  // A day that could be read in two ways is refused; the rule stays as it was.
  const rule = async () => {
    const note = (await draftOf(page, id)).sections[0]?.items[2]
    return note && 'shownWhen' in note ? note.shownWhen : undefined
  }
  await page.locator('[data-address="item/late"] .label').click()
  const value = page.getByLabel('Value', { exact: true })
  await expect(value).toHaveValue('27 Nov 2026')
  await value.fill('03/04/2026')
  await value.press('Tab')
  await expect(page.getByText('Write it as 27 Nov 2026.')).toBeVisible()
  expect(await rule()).toBe('day > @"2026-11-27"')
  await value.fill('3 April 2027')
  await value.press('Tab')
  await expect.poll(rule).toBe('day > @"2027-04-03"')
  await page.getByRole('button', { name: 'Pick: Value' }).click()
  await page.locator('.v-date-picker-month').getByText('15', { exact: true }).click()
  await expect.poll(rule).toBe('day > @"2027-04-15"')
  expect(errors).toEqual([])
})
