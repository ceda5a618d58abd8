import { expect, test, type Page, type APIRequestContext, type APIResponse } from '@playwright/test'
import { violationsOn } from './accessibility'
import { choose, open, responsesOf, signIn } from './support'
import { releaseForm } from '../support/release'

const CASCADE = {
  tobbin: 2,
  code: 'berths',
  title: 'Berth request',
  lists: [{ code: 'pontoons', title: 'Pontoons', rows: [] }],
  sections: [
    {
      code: 'place',
      title: 'Where?',
      items: [
        {
          kind: 'question',
          type: 'choice',
          code: 'coast',
          label: 'Coast',
          options: [{ code: 'x', label: 'X' }],
          required: true,
          display: 'search',
        },
        {
          kind: 'question',
          type: 'choice',
          code: 'harbour',
          label: 'Harbour',
          options: [{ code: 'x', label: 'X' }],
          required: true,
        },
        {
          kind: 'question',
          type: 'choice',
          code: 'pontoon',
          label: 'Pontoon',
          list: 'pontoons',
          required: true,
        },
        { kind: 'question', type: 'decimal', code: 'draught', label: 'Draught' },
        {
          kind: 'note',
          code: 'n_depth',
          text: 'Too shallow: {{ pontoon.row.depth }} m.',
          shownWhen: 'pontoon.row.depth < draught',
        },
      ],
    },
  ],
}
const CSV =
  '\ufeffCode;Name;Coast;Harbour;Depth;Postcode\r\np1;Pontoon 1;North coast;Saltmarsh Basin;3,2;00123\r\np2;Pontoon 2;North coast;"Tern\nQuay";2,1;00124\r\np3;Pontoon 3;East coast;Osier Creek;1,4;00125\r\np4;Pontoon 4;East coast;Osier Creek;1,9;00126\r\n'

async function newForm(page: Page, definition: object): Promise<string> {
  const made = await page.request.post('/api/forms', { data: { definition } })
  expect(made.status()).toBe(200)
  return (await made.json()).id
}
const draftOf = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/forms/${id}`)).json()).draft

async function importCsv(page: Page) {
  await page.getByRole('button', { name: 'Import', exact: true }).click()
  await page
    .getByLabel('Table to import')
    .setInputFiles({ name: 'pontoons.csv', mimeType: 'text/csv', buffer: Buffer.from(CSV) })
  await expect(page.getByText('4 new')).toBeVisible()
  await page.getByRole('button', { name: 'Take 4 rows in' }).click()
  await expect(page.getByRole('gridcell', { name: '00123' })).toBeVisible()
  // What is exported comes in again as it is, leading zeros and all.
  for (const kind of ['CSV', 'XLSX']) {
    await page.getByRole('button', { name: 'More', exact: true }).click()
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByText(`Export as ${kind}`).click(),
    ])
    const file = test.info().outputPath(`pontoons.${kind.toLowerCase()}`)
    await download.saveAs(file)
    await page.getByRole('button', { name: 'Import', exact: true }).click()
    await page.getByLabel('Table to import').setInputFiles(file)
    await expect(page.getByText('0 new · 0 changed · 4 as they are')).toBeVisible()
    await page.getByRole('button', { name: 'Close', exact: true }).click()
  }
}

async function splitLevels(page: Page) {
  // One column for each level becomes linked lists; the tree shows them; it is one step to undo and redo.
  await page.getByRole('button', { name: 'Columns', exact: true }).click()
  await page.getByRole('checkbox', { name: 'coast' }).check()
  await page.getByRole('checkbox', { name: 'harbour' }).check()
  await page.getByRole('button', { name: /Split into linked lists/ }).click()
  await expect(page.getByText('coasts → harbours → pontoons')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByRole('gridcell', { name: 'North coast' }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Redo', exact: true }).click()
}

async function narrowByPointing(page: Page, id: string) {
  // The questions take their choices from the lists, and are narrowed by pointing.
  await page.getByRole('tab', { name: 'Script', exact: true }).click()
  for (const [code, list] of [
    ['coast', 'the list coasts'],
    ['harbour', 'the list harbours'],
  ] as const) {
    await page.locator(`[data-address="item/${code}"] .label`).click()
    await choose(page, 'Where the choices come from', list)
    await page.locator(`[data-address="item/${code}"] .label`).click()
  }
  await page.locator('[data-address="item/harbour"] .label').click()
  await choose(page, 'Narrow by an earlier choice', /^by /)
  await expect(page.getByText('2 of 2 values are its codes')).toBeVisible()
  await page.locator('[data-address="item/harbour"] .label').click()
  await page.locator('[data-address="item/pontoon"] .label').click()
  await choose(page, 'Narrow by an earlier choice', /^by /)
  await expect
    .poll(async () => (await draftOf(page, id)).sections[0].items[2].narrowedBy)
    .toBe('row.harbour = harbour')
  const draft = await draftOf(page, id)
  expect(draft.sections[0].items[1].narrowedBy).toBe('row.coast = coast')
  expect(draft.lists.find((l: { code: string }) => l.code === 'pontoons').rows[0]).toEqual({
    code: 'p1',
    label: 'Pontoon 1',
    harbour: 'saltmarsh_basin',
    depth: 3.2,
    postcode: '00123',
  })
}

async function answerCascade(page: Page, id: string) {
  const token = await releaseForm(page, id)
  await open(page, `/f/${token}`)
  await page.getByRole('combobox', { name: 'Coast' }).fill('east')
  await page.getByRole('option', { name: 'East coast' }).click()
  await page.getByRole('radiogroup', { name: 'Harbour' }).getByText('Osier Creek').click()
  await expect(page.getByText('Pontoon 1')).toBeHidden()
  await page.getByRole('radiogroup', { name: 'Pontoon' }).getByText('Pontoon 3').click()
  await page.getByLabel('Draught').fill('1.5')
  await expect(page.getByText('Too shallow: 1.4 m.')).toBeVisible()
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Send' }).click()
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  const { rows } = await responsesOf(page, id)
  expect(rows[0]?.cells).toEqual({
    coast: 'East coast',
    harbour: 'Osier Creek',
    pontoon: 'Pontoon 3',
    draught: '1.5',
  })
}

test('from a CSV file through a cascade of three levels to a response', async ({ page }) => {
  await signIn(page)
  const id = await newForm(page, CASCADE)
  await open(page, `/forms/${id}/write?view=lists`)
  await test.step('a file comes in, and comes in again as it went out', () => importCsv(page))
  await test.step('one column for each level becomes linked lists', () => splitLevels(page))
  await test.step('questions take their choices from the lists and are narrowed', () =>
    narrowByPointing(page, id))
  await test.step('a respondent goes through the cascade', () => answerCascade(page, id))
})

async function typeAndPaste(page: Page, rows: () => Promise<Record<string, string>[]>) {
  await page.getByRole('gridcell', { name: 'Alpha' }).click()
  await page.keyboard.type('Alpha quay')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Bravo')
  await page.keyboard.press('Enter')
  await expect.poll(rows).toEqual([
    { code: 'a', label: 'Alpha quay', coast: 'North' },
    { code: 'bravo', label: 'Bravo' },
  ])
  // A block from a spreadsheet goes over the cells, and on into new rows.
  await page.getByRole('gridcell', { name: 'Bravo', exact: true }).click()
  await page.evaluate(() => navigator.clipboard.writeText('Beta\tnorth\nGamma\tnorth\nDelta\t'))
  await page.keyboard.press('Control+v')
  await expect
    .poll(async () => (await rows()).map(r => r.label))
    .toEqual(['Alpha quay', 'Beta', 'Gamma', 'Delta'])
}

async function fillMoveRetire(page: Page, rows: () => Promise<Record<string, string>[]>) {
  await page.getByRole('gridcell', { name: 'north', exact: true }).nth(1).click()
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Control+d')
  await expect.poll(async () => (await rows())[3]?.coast).toBe('north')
  await page.getByRole('gridcell', { name: 'Delta', exact: true }).click()
  await page.keyboard.press('Alt+ArrowUp')
  await expect
    .poll(async () => (await rows()).map(r => r.label))
    .toEqual(['Alpha quay', 'Beta', 'Delta', 'Gamma'])
  await page.getByRole('button', { name: 'Retire / bring back' }).click()
  await page.getByRole('button', { name: 'Mark the rows note' }).click()
  await expect
    .poll(async () => (await rows())[2])
    .toMatchObject({ label: 'Delta', retired: true, mark: 'note' })
}

async function mendOrphan(page: Page, rows: () => Promise<Record<string, string>[]>) {
  // A row that names its parent by label is an orphan; the mend writes the code.
  await expect(page.getByText('The coast of a row is not among coasts')).toBeVisible()
  await page.getByRole('button', { name: 'Write it as the list has it' }).click()
  await expect.poll(async () => (await rows())[0]?.coast).toBe('north')
  await expect(page.getByText('is not among')).toBeHidden()
  expect(await violationsOn(page, 'lists')).toEqual([])
  for (let i = 0; i < 20 && (await page.getByRole('button', { name: 'Undo', exact: true }).isEnabled()); i++)
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect.poll(rows).toEqual([{ code: 'a', label: 'Alpha', coast: 'North' }])
}

test('the grid by keyboard: typed, pasted as a block, filled down, moved, retired, mended, undone; no accessibility violation', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await signIn(page)
  const id = await newForm(page, {
    ...CASCADE,
    code: 'grid',
    lists: [
      { code: 'coasts', rows: [{ code: 'north', label: 'North' }] },
      { code: 'pontoons', columns: ['coast'], rows: [{ code: 'a', label: 'Alpha', coast: 'North' }] },
    ],
  })
  await open(page, `/forms/${id}/write?view=lists&list=pontoons`)
  const rows = async () => (await draftOf(page, id)).lists[1].rows
  await test.step('typed and pasted', () => typeAndPaste(page, rows))
  await test.step('filled down, moved, retired, marked', () => fillMoveRetire(page, rows))
  await test.step('an orphan is mended; no accessibility violation; all is undone', () =>
    mendOrphan(page, rows))
})

test('a list of the workspace follows in every form; releases keep the rows of their time', async ({
  page,
}) => {
  await signIn(page)
  const first = await newForm(page, {
    ...CASCADE,
    code: 'one',
    lists: [{ code: 'cranes', title: 'Cranes', rows: [{ code: 'c1', label: 'Crane 1' }] }],
  })
  const second = await newForm(page, { ...CASCADE, code: 'two', lists: [] })
  await open(page, `/forms/${first}/write?view=lists`)
  await page.getByRole('button', { name: 'Share this list with all forms' }).click()
  await expect(page.getByText('This list is kept for all forms')).toBeVisible()
  await expect.poll(async () => (await draftOf(page, first)).lists[0].shared).toBe('cranes')
  await open(page, `/forms/${second}/write?view=lists`)
  await page.getByRole('button', { name: /\+ Cranes/ }).click()
  await expect
    .poll(async () => (await draftOf(page, second)).lists?.[0]?.rows)
    .toEqual([{ code: 'c1', label: 'Crane 1' }])
  await page.getByRole('gridcell', { name: 'Crane 1' }).click()
  await page.keyboard.type('Great crane')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Changed here: 1 changed.')).toBeVisible()
  await expect.poll(async () => (await draftOf(page, second)).lists[0].rows[0].label).toBe('Great crane')
  expect((await draftOf(page, first)).lists[0].rows[0].label).toBe('Crane 1')
  await page.getByRole('button', { name: /Bring the change to that form too/ }).click()
  await expect.poll(async () => (await draftOf(page, first)).lists[0].rows[0].label).toBe('Great crane')
})

async function searchFar(page: Page, id: string, request: APIRequestContext) {
  const token = await releaseForm(page, id)
  const page1 = await request.get(`/api/answer/${token}`)
  expect((await page1.body()).length).toBeLessThan(60_000)
  await open(page, `/f/${token}`)
  await page.getByRole('combobox', { name: 'Land' }).fill('land 17')
  await page.getByRole('option', { name: 'Land 17', exact: true }).click()
  await page.getByRole('combobox', { name: 'Place' }).fill('place 4')
  await expect(page.getByRole('option', { name: 'Place 417 of Land 17' })).toBeVisible()
  await page.getByRole('option', { name: 'Place 417 of Land 17' }).click()
  await expect(page.getByText('417 people live there.')).toBeVisible()
  await page.reload()
  await expect(page.getByText('417 people live there.')).toBeVisible()
  return { page1, token }
}

async function changeLand(page: Page, page1: APIResponse, request: APIRequestContext, token: string) {
  // Another land takes the place away; a forged one is refused.
  await page.getByRole('combobox', { name: 'Land' }).fill('land 18')
  await page.getByRole('option', { name: 'Land 18', exact: true }).click()
  await expect(page.getByText('no longer on offer')).toBeVisible()
  const { today } = await page1.json()
  const post = (answers: object) =>
    request.post(`/api/answer/${token}`, {
      data: { release: 1, key: 'key-of-places', begunOn: today, answers },
    })
  expect((await post({ land: 'l18', place: 'p17' })).status()).toBe(422)
  expect((await post({ land: 'l18', place: 'p18' })).status()).toBe(200)
}

test('100,000 rows are searched and narrowed where they are kept; the page gets what it asks for', async ({
  page,
  request,
}) => {
  await signIn(page)
  const LANDS = Array.from({ length: 200 }, (_, i) => ({ code: `l${i}`, label: `Land ${i}` }))
  const places = Array.from({ length: 100_000 }, (_, i) => ({
    code: `p${i}`,
    label: `Place ${i} of Land ${i % 200}`,
    land: `l${i % 200}`,
    people: i,
  }))
  const id = await newForm(page, {
    tobbin: 2,
    code: 'places',
    title: 'Places',
    lists: [
      { code: 'lands', rows: LANDS },
      { code: 'places', columns: ['land', 'people'], rows: places },
    ],
    sections: [
      {
        code: 's',
        title: 'Where from?',
        items: [
          { kind: 'question', type: 'choice', code: 'land', label: 'Land', list: 'lands', required: true },
          {
            kind: 'question',
            type: 'choice',
            code: 'place',
            label: 'Place',
            list: 'places',
            narrowedBy: 'row.land = land',
            required: true,
          },
          {
            kind: 'note',
            code: 'n',
            text: '{{ place.row.people }} people live there.',
            shownWhen: 'place.row.people > 10',
          },
        ],
      },
    ],
  })
  const { page1, token } = await test.step('the page gets what it asks for', () =>
    searchFar(page, id, request))
  await test.step('another land takes the place away; a forged one is refused', () =>
    changeLand(page, page1, request, token))
})
