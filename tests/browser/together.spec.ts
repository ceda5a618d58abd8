import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from '@playwright/test'
import { giveFiles, open, signIn } from './support'
import { newForm, saved, draftOf, yesNo, row } from './scriptSupport'

test('“Why?” answers with the rule and the answers that decided it', async ({ page }) => {
  await signIn(page)
  await newForm(page, {
    tobbin: 2,
    code: 'why',
    title: 'Why',
    sections: [
      {
        code: 's',
        title: 'S',
        items: [
          yesNo('afloat'),
          { kind: 'question', code: 'loa', type: 'decimal', label: 'Length' },
          yesNo('deep', { shownWhen: 'afloat = true and loa > 10', required: 'loa > 12' }),
        ],
      },
    ],
  })
  const rehearsal = page.getByRole('region', { name: 'Rehearsal' })
  await rehearsal.getByLabel('Yes').first().check()
  await rehearsal.getByText('One thing of this section does not show').click()
  await rehearsal.getByRole('button', { name: 'Why not 1.3 deep?' }).click()
  const why = rehearsal.getByRole('group', { name: 'Why: deep' })
  await expect(why).toContainText(/false\s*all of|unknown\s*all of/)
  await expect(why).toContainText('you answered Yes in 1.1')
  await expect(why).toContainText('1.2 is blank')
  await rehearsal.getByLabel(/^Length/).fill('12.5')
  await expect(why).toContainText('Why is this shown?')
  await expect(why).toContainText('Why is it required?')
  await expect(why).toContainText('you answered 12.5 in 1.2')
  // Named sets of practice answers, and a form filled by itself.
  await rehearsal.getByRole('button', { name: 'Answers', exact: true }).click()
  await page.getByLabel('Name of this set of answers').fill('Deep keel')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Alt+n')
  await expect(rehearsal.getByLabel(/^Length/)).toHaveValue('')
  await rehearsal.getByRole('button', { name: 'Answers', exact: true }).click()
  await page.getByRole('button', { name: 'Deep keel', exact: true }).click()
  await expect(rehearsal.getByLabel(/^Length/)).toHaveValue('12.5')
})

test('two people on one draft: each sees the other’s edits, and a clash on one row loses nothing', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const id = await newForm(page, {
    tobbin: 2,
    code: 'shared',
    title: 'Shared',
    sections: [{ code: 's', title: 'S', items: [yesNo('alpha'), yesNo('bravo')] }],
  })
  const context = await browser.newContext()
  const second = await context.newPage()
  await signIn(second)
  await open(second, `/forms/${id}/write`)
  await row(page, 'alpha').locator('.label').click()
  await page.locator('.editor').getByLabel('Label').fill('Alpha of the first')
  await expect(row(second, 'alpha')).toContainText('Alpha of the first', { timeout: 10_000 })
  await row(second, 'bravo').locator('.label').click()
  await second.locator('.editor').getByLabel('Label').fill('Bravo of the second')
  await expect(row(page, 'bravo')).toContainText('Bravo of the second', { timeout: 10_000 })
  // The first loses the connection while both change one label: the later stands, the other is said and can be taken.
  await page.context().setOffline(true)
  await page.locator('.editor').getByLabel('Label').fill('Mine')
  await expect(page.getByText(/^Not saved/)).toBeVisible()
  await second.locator('.editor input').first().press('Escape')
  await row(second, 'alpha').locator('.label').click()
  await second.locator('.editor').getByLabel('Label').fill('Theirs')
  await saved(second)
  await page.context().setOffline(false)
  await expect(page.getByRole('alert')).toContainText('theirs was “Theirs”, yours “Mine” stands', {
    timeout: 15_000,
  })
  await expect(row(second, 'alpha')).toContainText('Mine', { timeout: 10_000 })
  await page.getByRole('button', { name: 'Take theirs' }).click()
  await expect(row(second, 'alpha')).toContainText('Theirs', { timeout: 10_000 })
  // Any earlier state can be looked at and brought back.
  await page.getByRole('tab', { name: 'History' }).click()
  await page.getByRole('button', { name: 'Look' }).last().click()
  await page.getByRole('button', { name: 'Bring this state back' }).click()
  await saved(page)
  expect((await draftOf(page, id)).sections[0]?.items.map(i => 'label' in i && i.label)).toEqual([
    'alpha',
    'bravo',
  ])
  await context.close()
})

/** Two forms as a zip, and the same file brought in again. */
async function bringFormsIn(page: Page) {
  const forms = page.getByRole('link', { name: 'Slipway incident report' })
  await page.getByLabel('Find a form').fill('Slipway incident report')
  await expect(forms.first()).toBeVisible()
  const before = await forms.count()
  for (const name of ['Mooring renewal', 'Slipway incident report']) {
    // What is chosen stays so while others are looked for.
    await page.getByLabel('Find a form').fill(name)
    await page.getByLabel(`Choose ${name} for export`).first().check()
  }
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export 2 as zip' }).click()
  await giveFiles(
    page,
    'Import…',
    await (await download).path().then(async path => ({
      name: 'forms.zip',
      mimeType: 'application/zip',
      buffer: await readFile(path),
    })),
  )
  await page.getByRole('button', { name: 'Bring in 2 forms' }).click()
  await expect(forms).toHaveCount(before + 1)
}

test('templates, shelf, commands, split and merge, move to, replace, completion, filling the rest, forms as a zip', async ({
  page,
}) => {
  await signIn(page)
  await page.getByRole('button', { name: /Accident report/ }).click()
  await expect(page.getByRole('link', { name: /all decided/ })).toBeVisible()
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Command or row' }).fill('rulebook')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'Rulebook' })).toBeVisible()
  await page.getByRole('tab', { name: 'Script' }).click()
  await row(page, 'told').locator('.number').click()
  await page.getByRole('button', { name: 'Shelf' }).click()
  await page.getByRole('button', { name: /^Period/ }).click()
  await row(page, 'from_day').locator('.label').click()
  await page.getByRole('button', { name: 'Begin a new section here' }).click()
  const second = page.locator('[data-address="section/what_2"]')
  await second.locator('.label').click()
  await page.getByRole('button', { name: 'Merge with the section above' }).click()
  await expect(second).toHaveCount(0)
  await row(page, 'photos').locator('.number').click()
  await page.keyboard.press('Alt+m')
  await page.getByRole('textbox', { name: 'Below which row' }).fill('person_phone')
  await page.keyboard.press('Enter')
  await expect(row(page, 'photos').locator('.number')).toHaveText(/^3\./)
  await page.keyboard.press('Control+f')
  await page.getByRole('textbox', { name: 'Find', exact: true }).fill('person_')
  await page.getByRole('textbox', { name: 'Replace by' }).fill('rep_')
  await page.getByRole('button', { name: 'Replace all' }).click()
  await expect(row(page, 'rep_phone')).toBeVisible()
  await row(page, 'to_day').locator('.label').click()
  await page.getByRole('button', { name: '+ shown when …' }).click()
  await page.getByRole('button', { name: 'As text' }).first().click()
  const text = page.getByRole('textbox', { name: 'Shown when, as text' })
  await text.pressSequentially('h')
  await expect(page.getByRole('option', { name: /^hurt/ }).first()).toBeVisible()
  // However fast the rest is typed.
  await text.pressSequentially('ur')
  await page.keyboard.press('Enter')
  await expect(text).toHaveText(/^hurt/)
  await page.getByRole('button', { name: 'Answers', exact: true }).click()
  await page.getByRole('button', { name: 'Fill the rest' }).click()
  await expect(page.getByText('The rest is filled with likely answers.')).toBeAttached()
  await saved(page)
  await open(page, '/')
  await bringFormsIn(page)
})
