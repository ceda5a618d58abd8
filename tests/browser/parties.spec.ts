import { expect, test, type Page } from '@playwright/test'
import { newForm, yesNo, draftOf } from './scriptSupport'
import { choose, open, signIn } from './support'
import type { Form } from '../../core/form/definition'

const LIFT: Form = {
  tobbin: 2,
  code: 'lift',
  title: 'Lift',
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard office', office: true },
  ],
  sections: [
    { code: 'boat', title: 'Boat', items: [yesNo('mast')] },
    { code: 'works', title: 'Works', items: [yesNo('paint'), yesNo('engine')] },
    { code: 'day', title: 'Day', items: [yesNo('agreed')] },
  ],
  turns: [
    { code: 'asks', party: 'owner', by: 'link', access: { boat: 'fills', works: 'fills' } },
    { code: 'agrees', party: 'yard', by: { person: 'yard@wherry.example' }, access: { day: 'fills' } },
  ],
}

const cell = (page: Page, turn: string, row: string) =>
  page.getByRole('cell', { name: new RegExp(`^${turn}, ${row}: `) })
const says = (page: Page, turn: string, row: string, access: string) =>
  expect(cell(page, turn, row)).toHaveText(access)

test('who fills, reads and never sees what: by keyboard, by dragging, one question apart, and undone', async ({
  page,
}) => {
  await signIn(page)
  const id = await newForm(page, LIFT)
  await open(page, `/forms/${id}/write?view=parties`)
  await cell(page, 'Owner', 'Boat').focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('r')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('f')
  await says(page, 'Yard office', 'Boat', 'reads')
  await says(page, 'Yard office', 'Works', 'fills')

  // A press turns a cell on; dragging on from it makes the others the same, as one step.
  await cell(page, 'Owner', 'Boat').hover()
  await page.mouse.down()
  await cell(page, 'Owner', 'Works').hover()
  await cell(page, 'Owner', 'Day').hover()
  await page.mouse.up()
  await cell(page, 'Yard office', 'Day').hover()
  for (const row of ['Boat', 'Works', 'Day']) await says(page, 'Owner', row, 'reads')
  await says(page, 'Yard office', 'Day', 'fills')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await says(page, 'Owner', 'Boat', 'fills')
  await says(page, 'Owner', 'Day', 'never sees')

  // One question differs from its section; when it does as its section does again, it is not named any more.
  await page.getByRole('button', { name: 'Questions of Works' }).click()
  await cell(page, 'Yard office', 'paint').focus()
  await page.keyboard.press('n')
  await expect
    .poll(async () => (await draftOf(page, id)).turns?.[1]?.access)
    .toEqual({ boat: 'reads', works: 'fills', day: 'fills', paint: 'never' })
  await page.keyboard.press('f')
  await expect
    .poll(async () => (await draftOf(page, id)).turns?.[1]?.access)
    .toEqual({ boat: 'reads', works: 'fills', day: 'fills' })
})

test('turns in order: added, told apart by who acts, moved and handed on by a rule', async ({ page }) => {
  await signIn(page)
  const id = await newForm(page, LIFT)
  await open(page, `/forms/${id}/write?view=parties`)
  await page.getByRole('button', { name: '+ turn' }).click()
  await choose(page, 'Turn 3: who acts', 'anyone with the link')
  await page.getByLabel('Turn 3: title').fill('Checks again')
  await expect(page.getByRole('radio', { name: /^3 Checks again/ })).toBeChecked()
  await page.getByRole('button', { name: 'Move turn 3 up' }).click()
  await expect(page.getByRole('radio', { name: /^2 Checks again/ })).toBeChecked()
  await page.getByRole('button', { name: '+ hand-off' }).click()
  await choose(page, 'Turn 2: hand-off 1', 'done')
  await expect
    .poll(async () => (await draftOf(page, id)).turns?.map(t => [t.title ?? t.code, t.by, t.handOff]))
    .toEqual([
      ['asks', 'link', undefined],
      ['Checks again', 'link', [{ to: 'done' }]],
      ['agrees', { person: 'yard@wherry.example' }, undefined],
    ])
})
