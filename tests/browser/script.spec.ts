import { expect, test, type Page } from '@playwright/test'
import { choose, errorsOf, signIn } from './support'
import { newForm, saved, draftOf, yesNo, row, pasteInto } from './scriptSupport'

async function beginForm(page: Page) {
  await signIn(page)
  await page.getByLabel('Title of the new form').focus()
  await page.keyboard.type('Winter lay-up')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('New line', { exact: true })).toBeFocused()
  const { keyboard } = page
  /** In the empty line: “/”, the type by its first letters, Enter; then the label. */
  const line = async (label: string, type?: string, delay = 0) => {
    if (type) {
      await keyboard.press('/')
      await keyboard.type(type, { delay })
      await keyboard.press('Enter')
    }
    await keyboard.type(label)
    await keyboard.press('Enter')
  }
  return { line, keyboard }
}

async function typeFirstSection(
  line: (label: string, type?: string | undefined, delay?: number) => Promise<void>,
  keyboard: Page['keyboard'],
  page: Page,
) {
  await line('Owner')
  await line('Boat')
  await line('Shall she come ashore?', 'yes')
  await line('Ashore', 'group')
  await line('Wanted day', 'date')
  // However slowly it is typed, it is one word.
  await line('Under cover?', 'ye', 1100)
  await line('Cover', 'group')
  await line('Length of cover', 'decimal')
  await line('Colour of cover', 'short')
  await keyboard.press('Escape')
  const labels = () =>
    page.getByRole('list', { name: 'Lines of the script' }).locator('.label').allInnerTexts()
  await expect.poll(async () => (await labels()).length).toBe(10)
  // The inner group is inside the outer one already: lines typed below a group go into it.
  await expect(row(page, 'length_cover').locator('.number')).toHaveText('1.4.3.1')
  return { labels }
}

async function pointRules(page: Page, keyboard: Page['keyboard']) {
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
    await expect(page.getByLabel('Comparison')).toHaveValue('is yes')
    await page.locator('.editor input').first().focus()
    await keyboard.press('Escape')
  }
  await rule('ashore', 'come ashore')
  await rule('cover', 'under cover')
}

async function typeSecondSection(
  page: Page,
  keyboard: Page['keyboard'],
  line: (label: string, type?: string | undefined, delay?: number) => Promise<void>,
) {
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
}

async function undoAndRedo(
  page: Page,
  keyboard: Page['keyboard'],
  labels: () => Promise<string[]>,
  errors: string[],
) {
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
}

test('a branching form of 12 questions with a nested group, from nothing, by keyboard only', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const { line, keyboard } = await test.step('a new form, by keyboard', () => beginForm(page))
  const { labels } = await test.step('two groups, one in the other', () =>
    typeFirstSection(line, keyboard, page))
  await test.step('rules by pointing', () => pointRules(page, keyboard))
  await test.step('four more, one a choice with pasted options', () =>
    typeSecondSection(page, keyboard, line))
  await test.step('undone to the empty form, redone to the same', () =>
    undoAndRedo(page, keyboard, labels, errors))
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
  const panel = page.getByRole('dialog', { name: 'Paste an outline' })
  await expect(panel.getByLabel('Line 2: type')).toHaveValue('single choice')
  await choose(panel, 'Line 5: type', 'date')
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
  await page.getByRole('tab', { name: 'Rulebook' }).click()
  await page.getByLabel('Search the rules').fill('is No')
  await expect(page.getByText('1 of 21 rules')).toBeVisible()
  await page.getByRole('checkbox', { name: 'Choose the rule of q19' }).check()
  await page.getByRole('button', { name: 'Take them away' }).click()
  await expect(page.getByText('0 of 20 rules')).toBeVisible()
})
