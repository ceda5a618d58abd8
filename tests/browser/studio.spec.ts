import { expect, test, type Page } from '@playwright/test'
import { draftOf, saved } from './scriptSupport'
import { addCheck, handOn, makeCascade, makeEntries, makeTotal, makeTurns, pasteSheet } from './sheetSupport'
import { errorsOf, linkTo, open, responsesOf, signIn } from './support'
import { releaseForm } from '../support/release'
import { listPlaces } from '../../core/form/walk'

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
Shelf: upper / lower
Key no.: ____
How many boxes do you need? [0-9]
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
/** As a caterer has it on paper. */
const ORDER = `CATERING ORDER
1) Customer's name *
2) Tel. *
3) E-mail
4) Company? Yes / No
   If yes, name of the company: ______ *
   If yes, VAT number
5) Event: wedding / birthday / meeting / other, please say ____ *
6) Date of the event *
7) What time shall we serve?
8) Number of guests [1-300] *
PART B: FOOD
Menu
Dish of the house
Course
Portions [1-300] *
Price of a portion (money) *
For whom?
To pay
Allergies (tick all that apply)
( ) nuts
( ) milk
( ) fish
( ) Other: ______
Please tell us early if anybody must not eat something.
PART C: PLACE
Address *
Floor [0-9]
Lift? (Y/N)
Kitchen on site? ☐ Yes ☐ No
If no, how far is the next kitchen?
Parking [0-20]
Remarks
PART D: THE KITCHEN
Cook *
Confirmed? (Y/N) *
If no, why not?
Rate the order (1-5)
Signature
`

/** What the release gets, and the link with which a form is answered. */
async function release(page: Page, sections: readonly string[]): Promise<{ id: string; token: string }> {
  await saved(page)
  await expect(page.getByRole('link', { name: /^Prove/ })).not.toContainText('fault')
  const id = page.url().split('/')[4] ?? ''
  const draft = await draftOf(page, id)
  expect(draft.sections.map(s => s.title)).toEqual(sections)
  const questions = listPlaces(draft).filter(p => p.kind === 'question')
  expect(questions.length).toBeGreaterThanOrEqual(30)
  expect(questions.filter(p => p.node.shownWhen !== undefined)).toHaveLength(4)
  return { id, token: await releaseForm(page, id) }
}
/** The link of the turn that is open. */
async function nextTurn(page: Page, id: string): Promise<string> {
  const [response] = (await responsesOf(page, id)).rows
  const details = await (await page.request.get(`/api/responses/${response?.id}`)).json()
  return linkTo(page, details.turns.at(-1).id)
}
async function sendLast(page: Page, id: string, cells: readonly string[]) {
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Hand on' }).click()
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  const [sent] = (await responsesOf(page, id)).rows
  expect(sent?.turn).toBeNull()
  expect(Object.values(sent?.cells ?? {})).toEqual(expect.arrayContaining([...cells]))
}
const answer = (page: Page, question: string, choice: string) =>
  page.getByRole('radiogroup', { name: question }).getByText(choice, { exact: true }).click()
const next = (page: Page) => page.getByRole('button', { name: /^Next/ }).click()

async function fillAsPotter(page: Page) {
  await page.getByLabel('Your name').fill('Ada Quill')
  await page.getByLabel('E-mail').fill('ada@kiln.example')
  await answer(page, 'Member of the studio?', 'Yes')
  await page.getByLabel('Member no.').fill('K-12')
  await answer(page, 'House', 'North house')
  await expect(page.getByText('Large kiln')).toBeHidden()
  await answer(page, 'Kiln', 'Raku kiln')
  await answer(page, 'Firing', 'glaze')
  await expect(page.getByLabel('Temperature wanted')).toBeVisible()
  await page.getByLabel('Date wanted').fill('2026-12-05')
  await next(page)
  await page.getByRole('button', { name: '+ Add to Batch' }).click()
  await page.getByLabel('Number of pieces').fill('4')
  await page.getByLabel('Height').fill('75')
  await page.getByLabel('Fee per piece').fill('2,50')
  await expect(page.getByText('The kiln is 60 cm high.')).toBeVisible()
  await page.getByLabel('Height').fill('35')
  await next(page)
  await handOn(page, 'Workshop')
}

test('a potter’s sheet becomes a form with entries, a cascade, a check, a total and two parties, and is sent', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  await pasteSheet(page, 'Kiln booking', SHEET, 'Signed')
  await makeEntries(page, 'Piece', 'Number of pieces', 3, 'Batch')
  await addCheck(page, 'Height', 'is at most', '60', 'The kiln is 60 cm high.')
  await makeCascade(page, [
    { label: 'House', list: 'Houses', table: 'Code\tHouse\nnorth\tNorth house\nsouth\tSouth house' },
    {
      label: 'Kiln',
      list: 'Kilns',
      table: 'Code\tKiln\thouse\nk1\tSmall kiln\tnorth\nk2\tRaku kiln\tnorth\nk3\tLarge kiln\tsouth',
    },
  ])
  const labels = { group: 'Batch', pieces: 'Number of pieces', price: 'Fee per piece' }
  await makeTotal(page, { ...labels, own: 'Fee of the batch', total: 'Fees' })
  await makeTurns(page, ['Potter', 'Workshop'], 'The studio')
  const { id, token } = await release(page, ['Kiln booking', 'The pots', 'Collecting', 'The studio'])
  await open(page, `/f/${token}`)
  await fillAsPotter(page)
  await open(page, await nextTurn(page, id))
  await page.getByLabel('Fired on').fill('2026-12-06')
  await sendLast(page, id, ['Ada Quill', 'K-12', 'glaze', 'North house', 'Raku kiln'])
  expect(errors).toEqual([])
})

async function fillAsCustomer(page: Page) {
  await page.getByLabel('Customer’s name').or(page.getByLabel("Customer's name")).fill('Bo Tarn')
  await page.getByLabel('Tel.').fill('01632 960104')
  await answer(page, 'Company?', 'Yes')
  await page.getByLabel('Name of the company').fill('Tarn & Daughters')
  await answer(page, 'Event', 'wedding')
  await page.getByLabel('Date of the event').fill('2027-05-08')
  await page.getByLabel('Number of guests').fill('40')
  await next(page)
  await answer(page, 'Menu', 'Garden menu')
  await expect(page.getByText('Trout')).toBeHidden()
  await answer(page, 'Dish of the house', 'Pea soup')
  await page.getByRole('button', { name: '+ Add to Dishes' }).click()
  await page.getByLabel('Portions').fill('250')
  await page.getByLabel('Portions').press('Tab')
  await expect(page.getByText('We cook 200 of one dish.')).toBeVisible()
  await page.getByLabel('Portions').fill('40')
  await page.getByLabel('Price of a portion').fill('12')
  await next(page)
  await page.getByLabel('Address').fill('Mill Lane 3')
  await answer(page, 'Kitchen on site?', 'No')
  await page.getByLabel('How far is the next kitchen?').fill('two doors')
  await handOn(page, 'Kitchen')
}

test('a caterer’s order sheet becomes such a form too, and is sent', async ({ page }) => {
  const errors = errorsOf(page)
  await signIn(page)
  await pasteSheet(page, 'Catering order', ORDER, 'Signature')
  await makeEntries(page, 'Course', 'Portions', 3, 'Dishes')
  await addCheck(page, 'Portions', 'is at most', '200', 'We cook 200 of one dish.')
  await makeCascade(page, [
    { label: 'Menu', list: 'Menus', table: 'id\tname\ng\tGarden menu\nr\tRiver menu' },
    {
      label: 'Dish of the house',
      list: 'Plates',
      table: 'id\tname\tmenu\nd1\tPea soup\tg\nd2\tBeet salad\tg\nd3\tTrout\tr',
    },
  ])
  const labels = { group: 'Dishes', pieces: 'Portions', price: 'Price of a portion' }
  await makeTotal(page, { ...labels, own: 'Sum', total: 'To pay' })
  await makeTurns(page, ['Customer', 'Kitchen'], 'The kitchen')
  const { id, token } = await release(page, ['Catering order', 'Food', 'Place', 'The kitchen'])
  await open(page, `/f/${token}`)
  await fillAsCustomer(page)
  await open(page, await nextTurn(page, id))
  await page.getByLabel('Cook').fill('Ro Fenn')
  await answer(page, 'Confirmed?', 'Yes')
  await sendLast(page, id, ['Bo Tarn', 'Tarn & Daughters', 'wedding', 'Garden menu', 'Pea soup', 'Ro Fenn'])
  expect(errors).toEqual([])
})
