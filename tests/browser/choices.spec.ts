import { expect, test } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { rulesOf } from '../../core/form/rules'
import { draftOf, newForm, row, saved } from './scriptSupport'
import { choose, open, signIn } from './support'

const YARD: Form = {
  tobbin: 2,
  code: 'yard',
  title: 'Yard',
  lists: [
    {
      code: 'coasts',
      rows: [
        { code: 'north', label: 'North coast' },
        { code: 'east', label: 'East coast' },
      ],
    },
  ],
  sections: [
    {
      code: 'boat',
      title: 'Boat',
      items: [
        {
          kind: 'question',
          code: 'hull',
          label: 'Hull',
          type: 'choice',
          required: true,
          options: [
            { code: 'wood', label: 'Wood' },
            { code: 'steel', label: 'Steel' },
          ],
        },
        { kind: 'question', code: 'coast', label: 'Coast', type: 'choice', list: 'coasts', required: true },
        { kind: 'question', code: 'bolts', label: 'Bolts', type: 'text', shownWhen: 'hull = "wood"' },
        { kind: 'note', code: 'cold', text: 'Cold.', shownWhen: 'coast = "north" and hull != "steel"' },
      ],
    },
  ],
}

test('a choice’s code is changed: rules follow, in one step; a choice that goes says who uses it', async ({
  page,
}) => {
  await signIn(page)
  const id = await newForm(page, YARD)
  const rules = async () => rulesOf(await draftOf(page, id)).map(r => r.text)
  await row(page, 'hull').click()
  const code = page.getByLabel('Choice 1: code')
  await code.fill('steel')
  await code.press('Enter')
  await expect(page.getByText('Another choice has the code “steel”.')).toBeVisible()
  await code.fill('timber')
  await code.press('Enter')
  await expect(page.getByText('“wood” is “timber” now, in 1 other place too.')).toBeVisible()
  await saved(page)
  expect(await rules()).toEqual(['hull = "timber"', 'coast = "north" and hull != "steel"'])
  await page.getByRole('button', { name: 'Remove the choice Steel' }).click()
  await expect(page.getByText('“Steel” is gone. Still used by “Cold.” (shown when).')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByLabel('Choice 2: code')).toHaveValue('steel')
})

test('a list row’s code is changed in the grid: rules follow; rows that go say who uses them', async ({
  page,
}) => {
  await signIn(page)
  const id = await newForm(page, YARD)
  await open(page, `/forms/${id}/write?view=lists&list=coasts`)
  await page.getByRole('gridcell', { name: 'north', exact: true }).dblclick()
  await page.keyboard.press('ControlOrMeta+A')
  await page.keyboard.type('n_shore')
  await page.keyboard.press('Enter')
  await expect(page.getByText('“north” is “n_shore” now, in 1 other place too.')).toBeVisible()
  await saved(page)
  expect(rulesOf(await draftOf(page, id)).map(r => r.text)).toContain('coast = "n_shore" and hull != "steel"')
  await page.getByRole('gridcell', { name: 'n_shore', exact: true }).click()
  await page.getByRole('button', { name: 'Delete', exact: true }).click()
  await expect(page.getByText('1 row is gone. Still used by “Cold.” (shown when).')).toBeVisible()
})

test('a choice that becomes a text and a choice again has its choices', async ({ page }) => {
  await signIn(page)
  const id = await newForm(page, YARD)
  await row(page, 'hull').click()
  await choose(page, 'Type', 'short text')
  await expect(page.getByLabel('Choice 1: label')).toBeHidden()
  await choose(page, 'Type', 'single choice')
  await expect(page.getByLabel('Choice 2: label')).toHaveValue('Steel')
  await saved(page)
  expect((await draftOf(page, id)).sections[0]?.items[0]).toEqual(YARD.sections[0]?.items[0])
})

test('an address to go on to that is none stays as typed and is said at its field', async ({ page }) => {
  await signIn(page)
  const id = await newForm(page, { ...YARD, closings: [{ code: 'thanks', text: 'Thank you.' }] })
  await open(page, `/forms/${id}/write?view=settings`)
  const address = page.getByLabel('Closing 1: address to go on to')
  await address.fill('wherry.example')
  await address.press('Tab')
  await expect(page.getByText('An address begins with https:// or, here, with /.')).toBeVisible()
  await expect(address).toHaveValue('wherry.example')
  await address.fill('https://wherry.example')
  await address.press('Tab')
  await saved(page)
  expect((await draftOf(page, id)).closings?.[0]?.forward).toBe('https://wherry.example')
})
