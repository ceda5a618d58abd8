import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { violationsOn } from './accessibility'
import { newForm, yesNo } from './scriptSupport'
import { choose, errorsOf, open, signIn } from './support'

const FORM: Form = {
  ...{ tobbin: 2, code: 'hives', title: 'Hive inspection' },
  sections: [
    {
      ...{ code: 'hive', title: 'The hive' },
      items: [
        { kind: 'question', type: 'text', code: 'apiary', label: 'Which apiary?', required: true },
        { kind: 'question', type: 'email', code: 'keeper', label: 'E-mail of the keeper', required: true },
        { kind: 'question', type: 'integer', code: 'frames', label: 'Frames of brood', min: 0, max: 20 },
        yesNo('queen_seen', { label: 'Queen seen?' }),
        {
          ...{ kind: 'question', type: 'text', code: 'eggs', label: 'Eggs where?', required: true },
          shownWhen: 'queen_seen = false',
        },
      ],
    },
  ],
  deliveries: [
    {
      ...{ code: 'warn', title: 'Warn the inspector', on: 'done', when: 'frames < 3' },
      act: { do: 'hook', address: 'https://inspector.example/weak', body: '{"apiary":"{{ apiary }}"}' },
    },
  ],
}
const GIVEN = [
  { apiary: 'Heath', keeper: 'a@wherry.example', frames: 8, queen_seen: true },
  { apiary: 'Orchard', keeper: 'b@wherry.example', frames: 2, queen_seen: true },
  { apiary: 'Clover', keeper: 'c@wherry.example', frames: 11, queen_seen: false, eggs: 'frame 4' },
]

/** A new form with responses, looked at in Collect. */
async function collected(page: Page): Promise<string> {
  await signIn(page)
  const id = await newForm(page, FORM)
  const token = await releaseForm(page, id)
  const begunOn = new Date().toISOString().slice(0, 10)
  for (const [i, answers] of GIVEN.entries()) {
    const sending = { release: 1, key: `hives-${id}-${i}`, begunOn, answers }
    expect((await page.request.post(`/api/answer/${token}`, { data: sending })).status()).toBe(200)
  }
  await open(page, `/forms/${id}/collect`)
  await expect(page.getByRole('heading', { name: '3 responses' })).toBeVisible()
  return id
}
const rail = (page: Page) => page.getByRole('navigation', { name: 'What is looked at' })

test('responses go from tray to tray by the keyboard, are kept as a view, written off into the bin and put back', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await collected(page)
  await rail(page).getByRole('button', { name: '+ trays' }).click()
  await page.getByRole('button', { name: 'Save the trays' }).click()
  await rail(page).getByText('Side by side').click()
  const lane = (name: string) => page.getByRole('region', { name, exact: true })
  const card = (name: string) => lane(name).getByRole('button', { name: /Clover/ })
  await card('In no tray').press('ArrowRight')
  await expect(card('New')).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await expect(card('Checked')).toBeFocused()
  expect(await violationsOn(page, 'trays')).toEqual([])
  await rail(page).getByText('Checked').click()
  await expect(page.getByRole('heading', { name: '1 of 3 responses' })).toBeVisible()
  await rail(page).getByRole('button', { name: '+ keep this view' }).click()
  await page.getByLabel('Name').fill('Looked through')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await rail(page).getByText('All responses').click()
  await expect(page.getByRole('heading', { name: '3 responses' })).toBeVisible()
  await page.getByRole('row', { name: /Heath/ }).getByRole('checkbox').check()
  await page.getByRole('button', { name: 'Delete …' }).click()
  await page.getByLabel('Why').fill('Counted twice')
  await page.getByRole('button', { name: 'Delete them' }).click()
  await expect(page.getByRole('heading', { name: '2 responses' })).toBeVisible()
  await rail(page).getByText('Bin').click()
  await page.getByRole('row', { name: /Heath/ }).getByRole('checkbox').check()
  await page.getByRole('button', { name: 'Put back' }).click()
  await rail(page).getByText('Looked through').click()
  await expect(page.getByRole('cell', { name: 'Clover' })).toBeVisible()
  await expect(page.getByRole('heading', { name: '1 of 3 responses' })).toBeVisible()
  expect(errors).toEqual([])
})

test('a response is corrected with a reason, what follows from it is shown before, and colleagues read a note', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await collected(page)
  await page.getByRole('cell', { name: 'Heath' }).click()
  await page.getByRole('button', { name: 'Correct …' }).click()
  const dialog = page.getByRole('dialog', { name: 'Correct the response' })
  await dialog.getByLabel('No', { exact: true }).check()
  await expect(dialog.getByText('Queen seen?: Yes → No')).toBeVisible()
  await dialog.getByLabel('Why').fill('The keeper rang')
  await expect(dialog.getByRole('button', { name: 'Correct it' })).toBeDisabled()
  await dialog.getByLabel('Eggs where?').fill('frame 2')
  expect(await violationsOn(page, 'correcting')).toEqual([])
  await dialog.getByRole('button', { name: 'Correct it' }).click()
  const one = page.getByRole('complementary', { name: 'One response' })
  await expect(one.getByText('frame 2')).toBeVisible()
  await one.getByRole('button', { name: '+ note' }).click()
  await one.getByRole('textbox', { name: 'Note' }).fill('Look again in May')
  await one.getByRole('button', { name: 'Keep the note' }).click()
  await expect(one.getByText('Look again in May')).toBeVisible()
  await one.getByText(/History:/).click()
  await expect(one.getByText('corrected the response: “The keeper rang”')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(one).toBeHidden()
  await page.keyboard.press('j')
  await expect(one.getByRole('heading', { name: 'Response 3' })).toBeVisible()
  expect(errors).toEqual([])
})

test('figures lead to the responses behind them, and what happens by itself is tried again by hand', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const id = await collected(page)
  await rail(page).getByText('Question by question').click()
  const figure = page.getByRole('article', { name: 'Queen seen?' })
  await expect(figure.getByText('3 of 3 asked answered')).toBeVisible()
  await figure.getByRole('button', { name: 'As a table' }).click()
  expect(await violationsOn(page, 'figures')).toEqual([])
  await figure.getByRole('button', { name: 'No', exact: true }).click()
  await expect(page.getByRole('heading', { name: '1 of 3 responses' })).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await rail(page).getByText('Crossed').click()
  await choose(page, 'Across the table', 'Version')
  await expect(page.getByRole('table').getByRole('cell', { name: '3', exact: true }).first()).toBeVisible()
  await rail(page).getByText('Deliveries').click()
  const log = page.getByRole('region', { name: 'What happens by itself' })
  await expect(async () => {
    await log.getByRole('button', { name: 'Look again' }).click()
    await expect(log.getByRole('row', { name: /Warn the inspector/ })).toContainText('Taken (200).', {
      timeout: 1_000,
    })
  }).toPass()
  const found = await (await page.request.get(`/api/forms/${id}/deliveries`)).json()
  expect(found.rows.map((r: { number: number }) => r.number)).toEqual([2])
  expect(await violationsOn(page, 'deliveries')).toEqual([])
  expect(errors).toEqual([])
})
