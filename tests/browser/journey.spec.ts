import { expect, test, type Page, type Locator } from '@playwright/test'
import { choose, errorsOf, open, ready, signIn } from './support'

async function typeQuestions(page: Page, rehearsal: Locator) {
  // Write: every line is a question; the type is chosen with “/”.
  const line = page.getByLabel('New line', { exact: true })
  await line.fill('Skipper’s name')
  await line.press('Enter')
  await line.press('/')
  await choose(page, 'Type of the new line', 'yes / no')
  await line.fill('Does she have a mast?')
  await line.press('Enter')
  await choose(page, 'Type of the new line', 'decimal number')
  await line.fill('Mast height')
  await line.press('Enter')
  await choose(page, 'Type of the new line', 'single choice')
  await line.fill('Which crane?')
  await line.press('Enter')
  // Options by typing, and by pasting lines.
  const choice = page.getByLabel('New choice')
  await choice.fill('Quay crane')
  await choice.press('Enter')
  await choice.evaluate(input => {
    const data = new DataTransfer()
    data.setData('text/plain', 'Slip winch\nMobile crane')
    input.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
  })
  await expect(page.getByLabel('Choice 3: code')).toHaveValue('mobile_crane')
  await expect(rehearsal.getByText('Mobile crane')).toBeVisible()
}

async function pointRule(script: Locator, page: Page, rehearsal: Locator) {
  // A rule by pointing.
  await script.getByRole('button', { name: 'Mast height', exact: true }).click()
  await page.getByRole('button', { name: '+ shown when …' }).click()
  await page.getByRole('combobox', { name: 'Question', exact: true }).fill('a mast')
  await page.keyboard.press('Enter')
  await choose(page, 'Comparison', 'is yes')
  await expect(script.getByText('Shown when Does she have a mast? is Yes').first()).toBeVisible()
  await page.getByRole('radio', { name: 'when shown' }).click()
  await expect(rehearsal.getByLabel('Mast height')).toBeHidden()
  await rehearsal.getByLabel('Yes').check()
  await rehearsal.getByLabel(/Mast height/).fill('9,5')
}

async function slipInText(page: Page, script: Locator, rehearsal: Locator) {
  // The same as text, with a slip: a finding, its mend, its witness.
  await page.getByRole('button', { name: 'As text' }).click()
  await page.getByLabel('Shown when, as text').fill('mast = true and mast = false')
  await expect(script.getByText('Fault: “Mast height” can never be shown').last()).toBeVisible()
  await expect(page.getByRole('link', { name: /Prove.*1 fault/ })).toBeVisible()
  await expect(rehearsal.getByLabel(/Mast height/)).toBeHidden()
  await script.getByRole('button', { name: 'Show the nearest miss' }).click()
  await expect(rehearsal.getByText('These answers lead to “Mast height”, which does not show.')).toBeVisible()
}

async function releaseMended(page: Page) {
  // A fault stops the release.
  await expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible()
  await page.getByRole('link', { name: /Release/ }).click()
  await expect(page.getByText('A form with a fault is not released.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Release version 1' })).toBeDisabled()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('No fault and no risk')).toBeVisible()
  await page.getByRole('button', { name: 'Release version 1' }).click()
  const link = page.getByTestId('link-1')
  await expect(link).toBeVisible()
  const address = (await link.getAttribute('href')) ?? ''
  return { address }
}

async function answerAsGuest(page: Page, address: string) {
  // A respondent, without sign-in.
  const browser = page.context().browser()
  const other = await browser?.newContext({ viewport: { width: 360, height: 740 } })
  const guest = await other?.newPage()
  if (!guest) throw new Error('No second page.')
  await open(guest, new URL(address, page.url()).href)
  await expect(guest.getByLabel(/Mast height/)).toBeHidden()
  await guest.getByLabel('Skipper’s name').fill('Piet Sorrel')
  await guest.getByLabel('Yes').check()
  await guest.getByRole('button', { name: 'Check your answers' }).click()
  await expect(guest.getByRole('alert')).toContainText('Mast height: This needs an answer.')
  await guest.getByLabel(/Mast height/).fill('tall')
  await expect(guest.getByRole('alert')).toContainText('Type a number')
  await guest.getByLabel(/Mast height/).fill('11.5')
  // What was typed outlives a reload; what hides comes back with its answer.
  await guest.reload()
  await ready(guest)
  await expect(guest.getByLabel(/Mast height/)).toHaveValue('11.5')
  await guest.getByLabel('No', { exact: true }).check()
  await expect(guest.getByLabel(/Mast height/)).toBeHidden()
  await guest.getByLabel('Yes').check()
  await expect(guest.getByLabel(/Mast height/)).toHaveValue('11.5')
  await guest.getByLabel('No', { exact: true }).check()
  await guest.getByRole('button', { name: 'Check your answers' }).click()
  await expect(guest.getByRole('heading', { name: 'Check your answers' })).toBeVisible()
  await expect(guest.getByText('Piet Sorrel')).toBeVisible()
  await expect(guest.getByText('11.5')).toBeHidden()
  await guest.getByRole('button', { name: 'Send' }).click()
  await expect(guest.getByRole('heading', { name: 'Thank you' })).toBeVisible()
}

async function readResponse(page: Page, errors: string[]) {
  // Collect: seen in the table and alone, with what was not asked shown as such.
  await page.getByRole('link', { name: /Collect/ }).click()
  await expect(page.getByRole('heading', { name: '1 response' })).toBeVisible()
  await page.getByRole('cell', { name: 'Piet Sorrel' }).click()
  const one = page.getByRole('complementary', { name: 'One response' })
  await expect(one.getByText('Mast height').locator('..')).toContainText('not asked')
  await expect(one.getByText('Which crane?').locator('..')).toContainText('left blank')
  expect(errors).toEqual([])
}

test('from an empty form to a response that is seen', async ({ page }) => {
  const errors = errorsOf(page)
  await signIn(page)
  await page.getByLabel('Title of the new form').fill('Crane booking')
  await page.getByRole('button', { name: 'New form' }).click()
  const script = page.getByRole('region', { name: 'Script' })
  const rehearsal = page.getByRole('region', { name: 'Rehearsal' })
  await test.step('every line is a question; the type is chosen with “/”', () =>
    typeQuestions(page, rehearsal))
  await test.step('a rule by pointing', () => pointRule(script, page, rehearsal))
  await test.step('the same as text, with a slip: a finding and its witness', () =>
    slipInText(page, script, rehearsal))
  const { address } = await test.step('a fault stops the release', () => releaseMended(page))
  await test.step('a respondent, without sign-in', () => answerAsGuest(page, address))
  await test.step('seen in the table and alone, with what was not asked', () => readResponse(page, errors))
})

test('the script by keyboard: type, move, indent, delete, undo to the beginning and redo', async ({
  page,
}) => {
  await signIn(page)
  await page.getByLabel('Title of the new form').fill('Keyboard form')
  await page.getByLabel('Title of the new form').press('Enter')
  await expect(page.getByLabel('New line', { exact: true })).toBeFocused()
  for (const label of ['Alpha', 'Bravo', 'Charlie']) {
    await page.keyboard.type(label)
    await page.keyboard.press('Enter')
  }
  await page.keyboard.press('Escape')
  const labels = () => page.getByRole('listitem').locator('.label').allInnerTexts()
  await expect.poll(labels).toEqual(['First section', 'Alpha', 'Bravo', 'Charlie'])
  await page.keyboard.press('Alt+ArrowUp')
  await expect.poll(labels).toEqual(['First section', 'Alpha', 'Charlie', 'Bravo'])
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Delete')
  await expect.poll(labels).toEqual(['First section', 'Charlie', 'Bravo'])
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
  await expect.poll(labels).toEqual(['First section'])
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+Shift+z')
  await expect.poll(labels).toEqual(['First section', 'Charlie', 'Bravo'])
  await expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible()
  await page.reload()
  await expect.poll(labels).toEqual(['First section', 'Charlie', 'Bravo'])
  // And by dragging.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'bravo' })
    .dragTo(page.getByRole('listitem').filter({ hasText: 'First section' }))
  await expect.poll(labels).toEqual(['First section', 'Bravo', 'Charlie'])
})

test('a risk is accepted with a reason, released with it, and comes back when what it rests on changes', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const question = (code: string, more: object) => ({ kind: 'question', code, label: code, ...more })
  const { id } = await (
    await page.request.post('/api/forms', {
      data: {
        definition: {
          tobbin: 2,
          code: 'stay',
          title: 'A stay',
          sections: [
            {
              code: 's',
              title: 'Stay',
              items: [
                question('first', { type: 'date', required: true }),
                question('last', {
                  type: 'date',
                  required: true,
                  validWhen: [{ rule: 'last >= first', message: 'It ends before it begins.' }],
                }),
                question('seats', {
                  type: 'integer',
                  min: 1,
                  max: 3,
                  validWhen: [{ rule: 'seats <= 3', message: 'Three at most.' }],
                }),
              ],
            },
          ],
        },
      },
    })
  ).json()
  await open(page, `/forms/${id}/release`)
  await expect(page.getByText('One risk is open')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Release version 1' })).toBeDisabled()
  await page.goto(`/forms/${id}/prove`)
  const finding = page.getByRole('listitem').filter({ hasText: 'never complains' })
  await finding.click()
  await finding.press('a')
  await page.getByLabel('Why this risk is acceptable').fill('The limit may be raised soon.')
  await page.getByRole('button', { name: 'Accept', exact: true }).click()
  await expect(finding).toContainText('Accepted by Ines Marlow')
  await page.getByLabel('Filter the findings').fill('no such words')
  await expect(finding).toBeHidden()
  await page.getByRole('link', { name: /Release/ }).click()
  await page.getByRole('button', { name: 'Release version 1' }).click()
  await expect(page.getByText('1 accepted risk')).toBeVisible()
  await page.request.post(`/api/forms/${id}/edits`, {
    data: { base: 0, edits: [{ do: 'change', what: 'item/seats', set: { max: 2 } }] },
  })
  await page.goto(`/forms/${id}/release`)
  await expect(page.getByText('One risk is open')).toBeVisible()
  expect((await page.request.post(`/api/forms/${id}/releases`, { data: { revision: 1 } })).status()).toBe(422)
  expect(errors).toEqual([])
})
