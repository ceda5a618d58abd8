import { readFileSync } from 'node:fs'
import { violationsOn } from './accessibility'
import { expect, test, type Locator, type Page } from '@playwright/test'
import { errorsOf, open, ready, released } from './support'

const definition = (name: string): unknown => JSON.parse(readFileSync(name, 'utf8'))

/** Goes on by Tab until something has the focus: whatever can't be reached by keyboard fails here. */
async function tabTo(page: Page, wanted: Locator) {
  await expect(wanted).toBeAttached()
  for (let i = 0; i < 60; i++) {
    if (await wanted.evaluate(e => e === document.activeElement)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`Not reached by Tab: ${wanted}`)
}

async function typeTexts(page: Page) {
  const type = async (label: string, text: string) => {
    await tabTo(page, page.getByLabel(label, { exact: true }))
    await page.keyboard.type(text)
  }
  // Errors say what is missing, and the list on top leads to each.
  await type('Short text', 'wr-1')
  await type('E-mail', 'ines')
  await page.keyboard.press('Tab')
  await expect(page.getByText('The “@” is missing')).toBeVisible()
  await tabTo(page, page.getByRole('button', { name: 'Next: Choices' }))
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('11 answers need your attention')
  await tabTo(page, page.getByRole('link', { name: 'Short text' }))
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Short text')).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('WR-101')
  await expect(page.getByText('Two capitals, a dash, three digits.')).toBeHidden()
  const values: [string, string][] = [
    ['Long text', 'Two lines'],
    ['Whole number', '7'],
    ['Decimal number, in m', '9,25'],
    ['Money, in EUR', '480'],
    ['E-mail', 'ines@wherry.example'],
    ['Phone', '01632 960001'],
    ['Web address', 'https://wherry.example'],
    ['Date', '11242026'],
    ['Time', '1030AM'],
  ]
  for (const [label, text] of values) await type(label, text)
  await tabTo(page, page.getByLabel('Date and time', { exact: true }))
  await page.keyboard.type('11242026')
  await page.keyboard.press('Tab')
  await page.keyboard.type('1030AM')
  await tabTo(page, page.getByRole('button', { name: 'Next: Choices' }))
  await page.keyboard.press('Enter')
}

async function makeChoices(page: Page) {
  await expect(page.getByRole('heading', { name: 'Choices' })).toBeFocused()
  const press = async (target: Locator, ...keys: string[]) => {
    await tabTo(page, target)
    for (const key of keys) await page.keyboard.press(key)
  }
  const group = (name: string) => page.getByRole('radiogroup', { name, exact: true })
  await press(group('Yes or no').getByRole('radio').first(), 'Space')
  await press(group('Radio buttons').getByRole('radio').first(), 'Space', 'ArrowDown')
  await expect(page.getByText('Beech is heavy, WR-101.')).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText('Beech is heavy')).toBeHidden()
  await press(page.getByLabel('Other, please say: your own words'))
  await page.keyboard.type('Cedar')
  await press(group('Buttons').getByRole('radio').first(), 'Space', 'ArrowRight')
  await press(page.getByLabel('Drop-down'))
  await page.keyboard.type('So')
  await press(page.getByRole('combobox', { name: 'Searchable list' }))
  await page.keyboard.type('toon 42')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('combobox', { name: 'Searchable list' })).toHaveValue('Pontoon 42')
  await press(page.getByLabel('Oil'), 'Space')
  await press(page.getByLabel('None of these'), 'Space')
  await expect(page.getByLabel('Oil')).not.toBeChecked()
  await press(group('Rating scale').getByRole('radio').first(), 'Space', 'ArrowRight', 'ArrowRight')
  await press(group('Bow').getByRole('radio').first(), 'Space')
  await press(group('Stern').getByRole('radio').first(), 'Space', 'ArrowRight')
  for (const name of ['Cook', 'First mate', 'Bosun'])
    await press(page.getByRole('button', { name, exact: true }), 'Enter')
  await page.getByRole('listitem').filter({ hasText: 'Bosun' }).focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByRole('list', { name: 'Ranking' })).toHaveText(/Cook.*Bosun.*First mate/s)
  await press(page.getByRole('button', { name: 'Next: The rest' }), 'Enter')
  return { press }
}

async function giveFileSignatureAndEntries(
  page: Page,
  press: (target: Locator, ...keys: string[]) => Promise<void>,
) {
  await expect(page.getByRole('heading', { name: 'The rest' })).toBeFocused()
  // A reload loses nothing that was typed.
  await page.reload()
  await ready(page)
  await expect(page.getByRole('heading', { name: 'The rest' })).toBeVisible()
  await tabTo(page, page.getByLabel('File', { exact: true }))
  const file = page.getByLabel('File', { exact: true })
  await file.setInputFiles({
    name: 'photo.png',
    mimeType: 'image/png',
    buffer: Buffer.from('%PDF-1.7 not what it claims'),
  })
  await expect(page.getByRole('alert')).toContainText('a PDF')
  await file.setInputFiles({
    name: 'large.txt',
    mimeType: 'text/plain',
    buffer: Buffer.alloc(1_200_000, 'a'),
  })
  await expect(page.getByRole('alert')).toContainText('at most 1 MB')
  await file.setInputFiles({
    name: 'note.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('Low water at six.'),
  })
  await expect(page.getByText('note.txt')).toBeVisible()
  await press(page.getByRole('textbox', { name: 'Signature' }))
  await page.keyboard.type('Ines Marlow')
  await press(page.getByLabel('What'))
  await page.keyboard.type('Rope')
  await press(page.getByLabel('Price, in EUR'))
  await page.keyboard.type('12.10')
  await press(page.getByRole('button', { name: '+ Add a line' }), 'Enter')
  await expect(page.getByLabel('What').nth(1)).toBeFocused()
  await page.keyboard.type('Paint')
  await press(page.getByLabel('Price, in EUR').nth(1))
  await page.keyboard.type('0.2')
  await expect(page.getByText('12.30 EUR')).toBeVisible()
  await expect(page.getByText('FIXED')).toBeVisible()
  await press(page.getByRole('button', { name: 'Check your answers' }), 'Enter')
  await expect(page.getByRole('heading', { name: 'Line: Paint' })).toBeVisible()
  await press(page.getByRole('button', { name: 'Send' }), 'Enter')
  await expect(page.getByRole('heading', { name: 'Done, WR-101' })).toBeVisible()
  await expect(page.getByText('Total 12.30 EUR, berth 12.')).toBeVisible()
}

async function readCollected(page: Page, errors: string[]) {
  // Collected: every answer as it was given, and the file to fetch.
  await open(page, '/')
  await page.getByRole('link', { name: 'Every type of question' }).first().click()
  await page.getByRole('link', { name: /Collect/ }).click()
  await page.getByRole('cell', { name: 'WR-101' }).click()
  const one = page.getByRole('complementary', { name: 'One response' })
  for (const told of [
    '9.25 m',
    '480.00 EUR',
    '24 Nov 2026, 10:30',
    'Cedar',
    'Pontoon 42',
    'None of these',
    '3 of 5',
    'Bow: Bad; Stern: Good',
    '1. Cook, 2. Bosun, 3. First mate',
    'signed: Ines Marlow',
    '0.20 EUR',
    '12.30 EUR',
  ])
    await expect(one).toContainText(told)
  const href = await one.getByRole('link', { name: 'note.txt' }).getAttribute('href')
  const fetched = await page.request.get(href ?? '')
  expect(await fetched.text()).toBe('Low water at six.')
  expect(fetched.headers()['content-disposition']).toContain('attachment')
  expect(errors.filter(e => !e.includes('413') && !e.includes('422'))).toEqual([])
}

test('a form with every type of question is answered by keyboard alone, and the response is seen', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const address = await released(page, definition('tests/fixtures/every_type.form.json'))
  await open(page, `${address}?berth=12&odd=1`)
  const unknown = page.getByText('“odd”, which this form does not know')
  await expect(page.getByRole('status').filter({ has: unknown })).toBeVisible()
  await test.step('texts and numbers: what is wrong is said, and the list on top leads there', () =>
    typeTexts(page))
  const { press } = await test.step('choices of every kind', () => makeChoices(page))
  await test.step('a reload loses nothing; file, signature and entries', () =>
    giveFileSignatureAndEntries(page, press))
  await test.step('collected: every answer as it was given, and the file to fetch', () =>
    readCollected(page, errors))
})

test('one question at a time, what keeps a section from being left is told on its last page', async ({
  page,
}) => {
  const whole = { kind: 'question', type: 'integer', min: 0, max: 9, required: true }
  const section = {
    code: 's',
    title: 'Berths',
    items: [
      { ...whole, code: 'a', label: 'Berths now' },
      { ...whole, code: 'b', label: 'Berths wanted' },
    ],
    validWhen: [{ rule: 'b > a', message: 'More are to be wanted than there are.' }],
  }
  const form = { tobbin: 2, code: 'pace', title: 'Pace', pace: 'question', sections: [section] }
  await open(page, await released(page, form))
  await page.getByLabel('Berths now').fill('5')
  await page.getByRole('button', { name: 'Next' }).click()
  await page.getByLabel('Berths wanted').fill('3')
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await expect(page.getByText('More are to be wanted than there are.').first()).toBeVisible()
  await page.getByLabel('Berths wanted').fill('7')
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await expect(page.getByRole('heading', { name: 'Check your answers' })).toBeVisible()
})

test('one question at a time, honest about branching; an early bad score brings its follow-ups and its closing', async ({
  page,
}) => {
  await open(page, '/f/demo_after_launch')
  await expect(page.getByText(/^Question 1 of \d+ to \d+$/)).toBeVisible()
  await page.keyboard.press('2')
  await expect(page.getByRole('radio', { name: '2', exact: true })).toBeChecked()
  await page.getByRole('button', { name: 'Next' }).click()
  for (const row of ['Booking the lift', 'The hoist crew', 'The yard while ashore', 'The bill'])
    await page
      .getByRole('radiogroup', { name: row })
      .getByRole('radio', { name: 'Good', exact: true })
      .check()
  await page.getByRole('button', { name: 'Next' }).click()
  await page.getByLabel('What went wrong?').fill('Late.')
  await page.getByRole('button', { name: 'Next' }).click()
  await expect(page.getByRole('radiogroup', { name: 'Was anything damaged?' })).toBeVisible()
  await page.keyboard.press('n')
  await page.getByRole('button', { name: 'Next' }).click()
  await expect(page.getByText('What matters most to you?')).toBeVisible()
  await page.getByRole('button', { name: 'Next' }).click()
  await page.getByRole('radio', { name: 'Yes' }).check()
  await page.getByRole('button', { name: 'Next' }).click()
  await expect(page.getByText(/Question 7 of 8/)).toBeVisible()
  await page.getByRole('button', { name: 'Next' }).click()
  await page.getByLabel(/^At noon/).check()
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Send' }).click()
  await expect(page.getByRole('heading', { name: 'We are sorry' })).toBeVisible()
})

test('a choice that narrowing takes away goes blank with a notice; a forged one is refused', async ({
  page,
  request,
}) => {
  await open(page, '/f/demo_haul_out')
  await page.getByLabel('Your name').fill('Piet Sorrel')
  for (const name of [/berth at/, /insured/])
    await page.getByRole('radiogroup', { name }).getByLabel('No').check()
  await page.getByRole('button', { name: /Next/ }).click()
  await page.getByLabel('North coast').check()
  await page.getByLabel('Tern Quay').check()
  await page.getByLabel('East coast').check()
  await expect(page.getByText('“Tern Quay” is no longer on offer')).toBeVisible()
  await expect(page.getByLabel('Tern Quay')).toBeHidden()
  await page.getByLabel('North coast').check()
  await expect(page.getByLabel('Tern Quay')).toBeChecked()
  const { today } = await (await request.get('/api/answer/demo_haul_out')).json()
  const refused = await request.post('/api/answer/demo_haul_out', {
    data: {
      release: 1,
      key: 'forged-key-1',
      begunOn: today,
      answers: { coast: 'east', harbour: 'gannet', engines: Array.from({ length: 10_000 }, () => ({})) },
    },
  })
  expect(refused.status()).toBe(422)
  const { data } = await refused.json()
  expect(data.problems.map((p: { path: string }) => p.path)).toEqual(
    expect.arrayContaining(['harbour', 'engines', 'owner_name']),
  )
})

for (const colorScheme of ['light', 'dark'] as const) {
  test(`no accessibility violation on any page of every type, at 360 px, ${colorScheme}`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ colorScheme, viewport: { width: 360, height: 740 } })
    const page = await context.newPage()
    const form = definition('tests/fixtures/every_type.form.json') as {
      sections: { items: { required?: boolean }[] }[]
    }
    // Nothing required, so that each page can be left as it is.
    for (const s of form.sections) for (const item of s.items) delete item.required
    await open(page, await released(page, form))
    for (const heading of ['Words and numbers', 'Choices', 'The rest']) {
      await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible()
      if (heading === 'The rest') await page.getByRole('button', { name: 'Check your answers' }).click()
      expect(await violationsOn(page, heading)).toEqual([])
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(360)
      if (heading !== 'The rest') await page.getByRole('button', { name: /^Next/ }).click()
    }
    await context.close()
  })
}
