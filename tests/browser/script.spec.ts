import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { errorsOf, open, signIn } from './support'

async function newForm(page: Page, definition: Form): Promise<string> {
  const { id } = await (await page.request.post('/api/forms', { data: { definition } })).json()
  await open(page, `/forms/${id}/write`)
  await expect(page.getByRole('region', { name: 'Script' })).toBeVisible()
  return id
}
const saved = (page: Page) => expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible()
const draftOf = async (page: Page, id: string): Promise<Form> =>
  (await (await page.request.get(`/api/forms/${id}`)).json()).draft
const yesNo = (code: string, more: object = {}) => ({
  kind: 'question' as const,
  code,
  type: 'yesNo' as const,
  label: code,
  ...more,
})
const row = (page: Page, code: string) => page.locator(`[data-address="item/${code}"]`)
const pasteInto = (page: Page, text: string) =>
  page.locator(':focus').evaluate((element, pasted) => {
    const data = new DataTransfer()
    data.setData('text/plain', pasted)
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  }, text)

test('a branching form of 12 questions with a nested group, from nothing, by keyboard only', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  await page.getByLabel('Title of the new form').focus()
  await page.keyboard.type('Winter lay-up')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Type the first question' })).toBeVisible()
  await page.getByRole('button', { name: 'Type the first question' }).focus()
  await page.keyboard.press('Enter')
  const { keyboard } = page
  /** In the empty line: “/”, the type by its first letters, Enter; then the label. */
  const line = async (label: string, type?: string) => {
    if (type) {
      await keyboard.press('/')
      await keyboard.type(type)
      await keyboard.press('Enter')
    }
    await keyboard.type(label)
    await keyboard.press('Enter')
  }
  await line('Owner')
  await line('Boat')
  await line('Shall she come ashore?', 'yes')
  await line('Ashore', 'group')
  await line('Wanted day', 'date')
  await line('Under cover?', 'yes')
  await line('Cover', 'group')
  await line('Length of cover', 'decimal')
  await line('Colour of cover', 'short')
  await keyboard.press('Escape')
  const labels = () =>
    page.getByRole('list', { name: 'Lines of the script' }).locator('.label').allInnerTexts()
  await expect.poll(async () => (await labels()).length).toBe(10)
  // The inner group is inside the outer one already: lines typed below a group go into it.
  await expect(row(page, 'length_cover').locator('.number')).toHaveText('1.4.3.1')
  // A rule by pointing, by keyboard: shown when, which question, is yes.
  const rule = async (code: string, question: string) => {
    await row(page, code).focus()
    await keyboard.press('Space')
    await expect(page.locator('.editor')).toBeVisible()
    await page.getByRole('button', { name: '+ shown when …' }).focus()
    await keyboard.press('Enter')
    await page.getByRole('combobox', { name: 'Question', exact: true }).focus()
    await keyboard.type(question)
    await keyboard.press('Enter')
    await expect(page.getByLabel('Comparison')).toHaveValue('isYes')
    await page.locator('.editor input').first().focus()
    await keyboard.press('Escape')
  }
  await rule('ashore', 'come ashore')
  await rule('cover', 'under cover')
  // Four more below the last, one of them a choice with pasted options.
  await row(page, 'owner').focus()
  await keyboard.press('End')
  await keyboard.press('Enter')
  await line('Mast', 'section')
  await line('Unstep the mast?', 'yes')
  await line('Height of the mast', 'decimal')
  await line('E-mail of the rigger', 'e-mail')
  await line('Who rigs?', 'single')
  await expect(page.getByLabel('New choice')).toBeFocused()
  await pasteInto(page, Array.from({ length: 80 }, (_, i) => `Rigger ${i + 1}`).join('\n'))
  await expect(page.getByLabel('Choice 80: code')).toHaveValue('rigger_80')
  await keyboard.press('Escape')
  await keyboard.press('Enter')
  await line('Remarks', 'long')
  await keyboard.press('Escape')
  await expect(page.getByRole('link', { name: /all decided/ })).toBeVisible()
  await saved(page)
  const id = page.url().split('/')[4] ?? ''
  const built = await draftOf(page, id)
  expect(JSON.stringify(built).match(/"kind":"question"/g)).toHaveLength(12)
  expect(built.sections[0]?.items[3]).toMatchObject({
    code: 'ashore',
    shownWhen: 'come_ashore = true',
    items: [
      { code: 'wanted_day' },
      { code: 'under_cover' },
      { code: 'cover', shownWhen: 'under_cover = true' },
    ],
  })
  // Everything undone is the empty form again; everything redone is the same definition.
  for (let i = 0; i < 60 && (await page.getByRole('button', { name: 'Undo' }).isEnabled()); i++)
    await keyboard.press('Control+z')
  await expect.poll(labels).toEqual(['First section'])
  for (let i = 0; i < 60 && (await page.getByRole('button', { name: 'Redo' }).isEnabled()); i++)
    await keyboard.press('Control+Shift+z')
  await saved(page)
  expect(JSON.stringify(await draftOf(page, id))).toBe(JSON.stringify(built))
  expect(errors).toEqual([])
})

test('an outline is looked at, corrected and inserted; a copy goes into another form', async ({ page }) => {
  await signIn(page)
  const id = await newForm(page, {
    tobbin: 2,
    code: 'intake',
    title: 'Intake',
    sections: [{ code: 's', title: 'S', items: [] }],
  })
  await page.locator('[data-address="section/s"]').focus()
  await pasteInto(
    page,
    "1. Boat's name *\n2. Hull material\n - Wood\n - Steel\n3. Is she insured?\nSECTION 2: THE VISIT\n4. Arrival",
  )
  const panel = page.getByRole('group', { name: 'Paste an outline' })
  await expect(panel.getByLabel('Line 2: type')).toHaveValue('choice')
  await panel.getByLabel('Line 5: type').selectOption('date')
  await panel.getByRole('button', { name: 'Insert 4 questions' }).click()
  await expect(row(page, 'arrival')).toContainText('date')
  await saved(page)
  expect((await draftOf(page, id)).sections.map(s => s.items.length)).toEqual([3, 1])
  // Copied here, pasted there: through the clipboard, as text.
  await row(page, 'hull_material').focus()
  const text = await page.locator(':focus').evaluate(element => {
    const data = new DataTransfer()
    element.dispatchEvent(
      new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }),
    )
    return data.getData('text/plain')
  })
  const other = await newForm(page, {
    tobbin: 2,
    code: 'other',
    title: 'Other',
    sections: [{ code: 's', title: 'S', items: [yesNo('hull_material')] }],
  })
  await row(page, 'hull_material').focus()
  await pasteInto(page, text)
  await expect(row(page, 'hull_material_2')).toContainText('one of 2')
  await saved(page)
  expect((await draftOf(page, other)).sections[0]?.items.map(i => i.code)).toEqual([
    'hull_material',
    'hull_material_2',
  ])
})

test('a rule is copied to 20 rows and turned round; a renamed code takes its rules along; what is in use is not deleted unasked', async ({
  page,
}) => {
  await signIn(page)
  const id = await newForm(page, {
    tobbin: 2,
    code: 'many',
    title: 'Many',
    sections: [
      {
        code: 's',
        title: 'S',
        items: [
          yesNo('gate'),
          yesNo('first', { shownWhen: 'gate = true' }),
          ...Array.from({ length: 20 }, (_, i) => yesNo(`q${i}`)),
        ],
      },
    ],
  })
  await row(page, 'first').locator('.label').click()
  await page.getByRole('button', { name: 'Copy rule' }).click()
  await page.locator('.editor input').first().press('Escape')
  await row(page, 'q0').locator('.number').click()
  await row(page, 'q19')
    .locator('.number')
    .click({ modifiers: ['Shift'] })
  const bar = page.getByRole('toolbar', { name: 'Selected rows' })
  await expect(bar).toContainText('20 rows')
  await bar.getByRole('button', { name: 'shown and required' }).click()
  await expect(row(page, 'q19')).toContainText('Shown when gate is Yes')
  await row(page, 'q19').locator('.label').click()
  await page.getByRole('button', { name: 'The opposite' }).click()
  await expect(row(page, 'q19')).toContainText('Shown when gate is No')
  await page.locator('.editor input').first().press('Escape')
  await row(page, 'gate').locator('.label').click()
  await page.locator('.editor').getByLabel('Code', { exact: true }).fill('entrance')
  await page.locator('.editor').getByLabel('Code', { exact: true }).press('Tab')
  await expect(row(page, 'entrance')).toBeVisible()
  await saved(page)
  const { sections } = await draftOf(page, id)
  const rules = sections[0]?.items.slice(1).map(i => i.shownWhen)
  expect(rules).toEqual([...Array.from({ length: 20 }, () => 'entrance = true'), 'entrance = false'])
  expect(sections[0]?.items.slice(2).every(i => 'required' in i && i.required === true)).toBe(true)
  await page.locator('.editor input').first().press('Escape')
  await row(page, 'entrance').focus()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('alertdialog')).toContainText('21 places use')
  await page.keyboard.press('Escape')
  await expect(row(page, 'entrance')).toBeVisible()
  // The rulebook tells the same, and takes rules away in bulk.
  await page.getByRole('link', { name: 'Rulebook' }).click()
  await page.getByLabel('Search the rules').fill('is No')
  await expect(page.getByText('1 of 21 rules')).toBeVisible()
  await page.getByRole('checkbox', { name: 'Choose the rule of q19' }).check()
  await page.getByRole('button', { name: 'Take them away' }).click()
  await expect(page.getByText('0 of 20 rules')).toBeVisible()
})

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
  await rehearsal.getByText('Answers', { exact: true }).click()
  await rehearsal.getByLabel('Name of this set of answers').fill('Deep keel')
  await rehearsal.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.keyboard.press('Alt+n')
  await expect(rehearsal.getByLabel(/^Length/)).toHaveValue('')
  await rehearsal.getByRole('button', { name: 'Deep keel', exact: true }).click()
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
  await page.getByRole('link', { name: 'History' }).click()
  await page.getByRole('button', { name: 'Look' }).last().click()
  await page.getByRole('button', { name: 'Bring this state back' }).click()
  await saved(page)
  expect((await draftOf(page, id)).sections[0]?.items.map(i => 'label' in i && i.label)).toEqual([
    'alpha',
    'bravo',
  ])
  await context.close()
})

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
  await page.getByRole('link', { name: 'Script' }).click()
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
  const text = page.getByRole('combobox', { name: 'Shown when, as text' })
  await text.pressSequentially('hu')
  await expect(page.getByRole('option', { name: /^hurt/ }).first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(text).toHaveValue(/^hurt/)
  await page.getByText('Answers', { exact: true }).click()
  await page.getByRole('button', { name: 'Fill the rest' }).click()
  await expect(page.getByText('The rest is filled with likely answers.')).toBeAttached()
  await saved(page)
  await open(page, '/')
  const forms = page.getByRole('link', { name: 'Slipway incident report' })
  const before = await forms.count()
  for (const name of ['Slipway incident report', 'Mooring renewal'])
    await page.getByLabel(`Choose ${name} for export`).first().check()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export 2 as zip' }).click()
  await page.getByLabel('Definition file').setInputFiles(
    await (await download).path().then(async path => ({
      name: 'forms.zip',
      mimeType: 'application/zip',
      buffer: await readFile(path),
    })),
  )
  await page.getByRole('button', { name: 'Bring in 2 forms' }).click()
  await expect(forms).toHaveCount(before + 1)
})
