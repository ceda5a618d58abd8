import { expect, test } from '@playwright/test'
import { draftOf, newForm, pasteInto, row, saved, yesNo } from './scriptSupport'
import { choose, errorsOf, signIn } from './support'
import type { Form, Item } from '../../core/form/definition'

const empty = (code: string, rows: { code: string; label: string }[] = []) => ({ code, title: code, rows })
const form: Form = {
  tobbin: 2,
  code: 'tables',
  title: 'Tables',
  sections: [
    { code: 'one', title: 'One', items: [yesNo('wet')], routes: [{ when: 'wet = true', to: 'three' }] },
    { code: 'two', title: 'Two', items: [yesNo('dry')], routes: [{ to: 'finish' }] },
    {
      code: 'three',
      title: 'Remarks',
      items: [
        {
          kind: 'group',
          code: 'g',
          title: 'Inside',
          shownWhen: 'wet = true',
          items: [yesNo('deep')],
        } as Item,
        yesNo('tail'),
      ],
    },
  ],
  lists: [empty('depots'), empty('plain')],
}

test('a table pasted into a new list keeps all columns; heads, code and label are asked once', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, structuredClone(form))
  await page.getByRole('tab', { name: 'Lists', exact: true }).click()
  await page.getByRole('gridcell').first().click()
  await pasteInto(
    page,
    'Depot no.\tDepot name\tBays\tCoast\nD-1\tWeir depot\t4\tnorth\nD-2\tQuay depot\t12\tsouth',
  )
  await expect(page.getByText('2 new')).toBeVisible()
  await expect(page.getByLabel('The first line heads the columns')).toBeChecked()
  await expect(page.getByRole('combobox', { name: 'Respondents read' })).toHaveValue('Depot name')
  await page.getByRole('button', { name: 'Take 2 rows in' }).click()
  await saved(page)
  const lists = async () => (await draftOf(page, id)).lists ?? []
  expect((await lists())[0]).toMatchObject({
    columns: [
      { code: 'bays', label: 'Bays', type: 'number' },
      { code: 'coast', label: 'Coast' },
    ],
    rows: [
      { code: 'D-1', label: 'Weir depot', bays: 4, coast: 'north' },
      { code: 'D-2', label: 'Quay depot', bays: 12, coast: 'south' },
    ],
  })
  // No heads: every line is a row, and which column is read can be said.
  await page.getByRole('button', { name: /^plain/ }).click()
  await page.getByRole('gridcell').first().click()
  await pasteInto(page, 'north\tWeir depot\nsouth\tQuay depot\nsouth\tTern depot')
  await expect(page.getByLabel('The first line heads the columns')).not.toBeChecked()
  await choose(page, 'Respondents read', 'Column 2')
  await page.getByRole('button', { name: 'Take 3 rows in' }).click()
  await saved(page)
  expect((await lists())[1]?.rows.map(r => [r.label, r.column_1])).toEqual([
    ['Weir depot', 'north'],
    ['Quay depot', 'south'],
    ['Tern depot', 'south'],
  ])
  // What is said of a paste goes when it is undone.
  await page.getByRole('gridcell', { name: 'Weir depot' }).click()
  await pasteInto(page, 'Weir\nQuay')
  await expect(page.getByText('2 lines pasted.')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('2 lines pasted.')).toBeHidden()
  expect(errors).toEqual([])
})

test('exits stand as sentences in script and rulebook; a row that goes into a group with a rule says so', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, structuredClone(form))
  const section = (code: string) => page.locator(`[data-address="section/${code}"]`)
  await expect(section('one')).toContainText('→ Remarks when wet is Yes')
  await expect(section('two')).toContainText('→ then on to the finish')
  await row(page, 'tail').focus()
  await page.keyboard.press('Tab')
  await expect(
    page.getByText('“tail” is in “Inside” now, and shows only when that does: when wet is Yes.'),
  ).toBeVisible()
  await page.getByRole('tab', { name: 'Rulebook' }).click()
  await expect(page.getByRole('button', { name: 'on to Remarks when wet is Yes' })).toBeVisible()
  await page.getByRole('button', { name: 'always on to the finish' }).click()
  await page.getByRole('button', { name: '+ leads on when …' }).click()
  await page.keyboard.type('dry')
  await page.keyboard.press('Enter')
  await saved(page)
  expect((await draftOf(page, id)).sections[1]?.routes).toEqual([{ when: 'dry = true', to: 'finish' }])
  expect(errors).toEqual([])
})
