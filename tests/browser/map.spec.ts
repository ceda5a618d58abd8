import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { draftOf, newForm, saved } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

/** An allotment society’s yearly form. */
const section = (code: string, title: string) => ({
  code,
  title,
  items: [
    { kind: 'question' as const, type: 'yesNo' as const, code: `${code}_ok`, label: `Is ${title} in order?` },
  ],
})
const FORM = {
  tobbin: 2 as const,
  code: 'allotment',
  title: 'Allotment year',
  sections: [
    section('plot', 'Plot'),
    { ...section('shed', 'Shed'), routes: [{ when: 'shed_ok = false', to: 'fee' }] },
    section('bees', 'Bees'),
    section('fee', 'Fee'),
  ],
}

test('the map: ways with their conditions, written by drawing and pointing, undone, and saved', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await open(page, `/forms/${id}/write?view=map`)
  const map = page.getByRole('region', { name: 'Map' })
  await expect(map.getByRole('button', { name: 'when Is Shed in order? is No' })).toBeVisible()
  await expect(map).toContainText('3 to 4 questions')

  // The way of the plot is drawn past the shed.
  const routesOf = async () => (await draftOf(page, id)).sections.map(s => s.routes ?? [])
  const handle = (title: string, side: string) =>
    map.locator('.vue-flow__node', { hasText: title }).locator(`.vue-flow__handle-${side}`)
  await handle('Plot', 'bottom').dragTo(handle('Bees', 'top'), { force: true })
  await saved(page)
  expect((await routesOf())[0]).toEqual([{ to: 'bees' }])
  await page.keyboard.press('Control+z')
  await saved(page)
  expect((await routesOf())[0]).toEqual([])

  // A section is put on the way past the bees, and the rehearsal’s way follows the answers.
  await map.getByRole('button', { name: 'when Is Shed in order? is No' }).click()
  await map.getByRole('button', { name: '+ section on this way' }).click()
  await expect(map.locator('.vue-flow__node', { hasText: 'New section' })).toBeVisible()
  await saved(page)
  const draft = await draftOf(page, id)
  expect(draft.sections.map(s => s.title)).toEqual(['Plot', 'Shed', 'Bees', 'New section', 'Fee'])
  expect((await routesOf())[1]).toEqual([{ when: 'shed_ok = false', to: draft.sections[3]?.code }])

  // By keyboard, to the script and as a list.
  await map.locator('.vue-flow__node', { hasText: 'Bees' }).press('Enter')
  await map.getByRole('button', { name: 'Show in the script' }).click()
  await expect(page.getByRole('tab', { name: 'Script' })).toHaveAttribute('aria-selected', 'true')
  // And from a row of the script back to its section on the map.
  await page.locator('[data-address="section/shed"] .label').click()
  await page.getByRole('link', { name: 'On the map' }).click()
  await expect(map.locator('.details strong')).toHaveText('2 Shed')
  await open(page, `/forms/${id}/write?view=map`)
  await map.getByLabel('as a list').check()
  await expect(map.getByRole('listitem').filter({ hasText: 'on to New section' }).first()).toContainText(
    'Shed',
  )
  const [saving] = await Promise.all([
    page.waitForEvent('download'),
    map.getByRole('button', { name: 'Save the map as SVG' }).click(),
  ])
  expect(readFileSync(await saving.path(), 'utf8')).toMatch(/^<svg .*Allotment year.*<\/svg>$/s)
  expect(errors).toEqual([])
})
