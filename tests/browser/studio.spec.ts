import { expect, test, type Page } from '@playwright/test'
import { draftOf, pasteInto, saved } from './scriptSupport'
import { choose, errorsOf, open, responsesOf, signIn } from './support'
import { releaseForm } from '../support/release'

/** As it hangs beside the kilns. */
const SHEET = `KILN BOOKING
Please fill in this sheet before you bring your pots.
1. Your name *
2. Tel.: ______
3. E-mail *
4. Member of the studio? ☐ Yes ☐ No
   If yes, member no.: ____
   If no, who brought you?
5. House
6. Kiln
7. Firing: bisque / glaze / once-fired *
   If glaze, temperature wanted [900-1300]
8. Date wanted *
Part II: The pots
Clay: stoneware / earthenware / porcelain / other, please say ____
Made of (tick all that apply)
- thick walls
- lids
- Other: ____
Piece
Number of pieces [1-60] *
Height (decimal) *
Fee per piece (money) *
Fees
Part III: Collecting
Who collects?
Collected on
Remarks:
On a scale of 1-5, how urgent is it?
Rank these in order of importance
a) colour
b) strength
c) price
Part IV: The studio
Fired on *
Anything broken? (Y/N)
If yes, what?
Signed: ______
`
/** A line of the script by its label, which a star may follow. */
const line = (page: Page, label: string) =>
  page
    .locator('[data-address]')
    .filter({ has: page.getByRole('button', { name: new RegExp(`^${label}(?: \\*)?$`) }) })
async function openLine(page: Page, label: string) {
  await page.keyboard.press('Escape')
  await line(page, label).focus()
  await page.keyboard.press('Space')
  await expect(page.locator('.editor')).toBeVisible()
}

async function pasteSheet(page: Page) {
  await page.getByLabel('Title of the new form').fill('Kiln booking')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('New line', { exact: true })).toBeFocused()
  await pasteInto(page, SHEET)
  await page.getByRole('button', { name: /^Insert \d+ questions$/ }).click()
  await expect(line(page, 'Signed')).toBeVisible()
}

async function makeEntries(page: Page) {
  // The label that only heads the others goes, and they become a group in entries.
  await page.keyboard.press('Escape')
  await line(page, 'Piece').focus()
  await page.keyboard.press('Delete')
  await line(page, 'Number of pieces').focus()
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Control+g')
  await page.keyboard.press('Space')
  await page.locator('.editor').getByLabel('Title').fill('Batch')
  await page.locator('.editor').getByLabel('in entries').check()
  await openLine(page, 'Height')
  await page.getByRole('button', { name: '+ valid when …' }).click()
  await choose(page, 'Comparison', 'is at most')
  await page.getByLabel('Value').fill('60')
  await page.getByLabel('Value').press('Tab')
  await page.getByLabel('Message of check 1').fill('The kiln is 60 cm high.')
}

test('a messy sheet becomes a form with entries, a check and follow-ups, and is sent', async ({ page }) => {
  const errors = errorsOf(page)
  await signIn(page)
  await test.step('the sheet is pasted and read', () => pasteSheet(page))
  await test.step('three of its lines are asked in entries, one with a check', () => makeEntries(page))
  await saved(page)
  const id = page.url().split('/')[4] ?? ''
  const draft = await draftOf(page, id)
  expect(draft.sections.map(s => s.title)).toEqual(['Kiln booking', 'The pots', 'Collecting', 'The studio'])
  expect(JSON.stringify(draft).match(/"kind":"question"/g)?.length).toBeGreaterThan(25)
  expect(JSON.stringify(draft).match(/"shownWhen"/g)).toHaveLength(4)
  expect(errors).toEqual([])
  const token = await releaseForm(page, id)
  await open(page, `/f/${token}`)
  await page.getByLabel('Your name').fill('Ada Quill')
  await page.getByLabel('E-mail').fill('ada@kiln.example')
  await page.getByLabel('Yes').check()
  await page.getByLabel('Member no.').fill('K-12')
  await page.getByText('glaze', { exact: true }).click()
  await expect(page.getByLabel('Temperature wanted')).toBeVisible()
  await page.getByLabel('Date wanted').fill('2026-12-05')
  await page.getByRole('button', { name: /^Next/ }).click()
  await page.getByRole('button', { name: '+ Add to Batch' }).click()
  await page.getByLabel('Number of pieces').fill('4')
  await page.getByLabel('Height').fill('75')
  await page.getByLabel('Fee per piece').fill('2,50')
  await expect(page.getByText('The kiln is 60 cm high.')).toBeVisible()
  await page.getByLabel('Height').fill('35')
  await page.getByRole('button', { name: /^Next/ }).click()
  await page.getByRole('button', { name: /^Next/ }).click()
  await page.getByLabel('Fired on').fill('2026-12-06')
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Send', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  const { rows } = await responsesOf(page, id)
  expect(Object.values(rows[0]?.cells ?? {})).toEqual(expect.arrayContaining(['Ada Quill', 'K-12', 'glaze']))
  expect(errors).toEqual([])
})
