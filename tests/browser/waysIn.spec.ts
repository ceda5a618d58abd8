import { expect, test, type Page } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { newForm } from './scriptSupport'
import { errorsOf, open, ready, responsesOf, signIn } from './support'
import { newPage } from './turnsSupport'

const FORM: Form = {
  ...{ tobbin: 2, code: 'course', title: 'First-aid course' },
  sections: [
    {
      ...{ code: 'who', title: 'You' },
      items: [
        { kind: 'question', type: 'text', code: 'name', label: 'Your name', required: true },
        { kind: 'question', type: 'email', code: 'mail', label: 'Your e-mail' },
        {
          ...{ kind: 'question', type: 'choice', code: 'day', label: 'Which evening?' },
          options: [
            { code: 'monday', label: 'Monday', places: 1 },
            { code: 'friday', label: 'Friday' },
          ],
        },
        { kind: 'question', type: 'hidden', code: 'source', label: 'Where from' },
      ],
    },
  ],
}

async function send(page: Page) {
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: /^Send/ }).click()
}
const thanked = (page: Page) => expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()

/** A form of its own, released, with its stage open. */
async function releaseStage(page: Page, form = FORM) {
  await signIn(page)
  const id = await newForm(page, form)
  const token = await releaseForm(page, id)
  await open(page, `/forms/${id}/release`)
  const address = (await page.getByTestId('address').getAttribute('href')) ?? ''
  return { id, address, token }
}

test('a link with a name answers by itself; an option that has run out meanwhile is said', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  const { id } = await releaseStage(page)
  const ways = page.getByRole('region', { name: 'Ways in' })
  await ways.getByRole('button', { name: 'Add a link' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Poster')
  await page.getByLabel('Answers “Where from” with').fill('poster')
  await page.getByRole('button', { name: 'Make the link' }).click()
  const link = (await ways.getByRole('link', { name: /\/f\// }).getAttribute('href')) ?? ''
  await ways.getByRole('button', { name: 'QR' }).click()
  await expect(page.getByRole('img', { name: /^QR code of/ })).toBeVisible()
  await page.getByRole('button', { name: 'Close', exact: true }).last().click()
  const [first, second] = [await newPage(browser), await newPage(browser)]
  await open(first, link)
  await open(second, link)
  for (const guest of [first, second]) {
    await guest.getByLabel('Your name').fill('Oda')
    await guest.getByLabel(/^Monday/).check()
  }
  await send(first)
  await thanked(first)
  await send(second)
  await expect(second.getByText('“Monday” of “Which evening?” has run out meanwhile').first()).toBeVisible()
  await expect(second.getByLabel(/^Monday/)).toHaveCount(0)
  await second.getByLabel('Friday').check()
  await send(second)
  await thanked(second)
  const { rows } = await responsesOf(page, id)
  expect(rows.map(r => r.cells.source)).toEqual(['poster', 'poster'])
  await page.reload()
  await expect(ways.getByText('2 responses')).toBeVisible()
  await expect(page.getByText('monday 1 of 1 taken')).toBeVisible()
  expect(errors).toEqual([])
})

test('people get a personal link each, answer once, and are reminded until they have', async ({
  page,
  browser,
}) => {
  const { id, address } = await releaseStage(page)
  const ways = page.getByRole('region', { name: 'Ways in' })
  await ways.getByRole('button', { name: 'Add people' }).click()
  const list = 'Oda Fisher, oda@course.example\nPiet Brandt <piet@course.example>'
  await ways.getByLabel('People, one on each line').fill(list)
  await ways.getByRole('button', { name: 'Add 2 people' }).click()
  await ways.getByRole('button', { name: 'Write to 2 new' }).click()
  await page.getByRole('button', { name: 'Post 2 letters' }).click()
  await expect(ways.getByText(/written to/).first()).toBeVisible()
  const opening = page.getByRole('region', { name: 'Opening' })
  await opening.getByRole('button', { name: /^Who may answer/ }).click()
  await opening.getByLabel('who has a personal link').check()
  await opening.getByLabel('Each person answers at most').fill('1')
  await opening.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(opening.getByText('✓ In force')).toBeVisible()
  const { letters }: { letters: { to: string; text: string }[] } = await (
    await page.request.get('/api/post')
  ).json()
  const link = /\/f\/[\w-]+/.exec(letters.find(l => l.to === 'oda@course.example')?.text ?? '')?.[0] ?? ''
  const guest = await newPage(browser)
  await open(guest, address)
  await expect(guest.getByRole('heading', { name: 'Not for you' })).toBeVisible()
  await open(guest, link)
  await guest.getByLabel('Your name').fill('Oda')
  await send(guest)
  await thanked(guest)
  await open(guest, link)
  await expect(guest.getByRole('heading', { name: 'Answered already' })).toBeVisible()
  await page.reload()
  await expect(ways.getByText('1 of 2 have answered.')).toBeVisible()
  await expect(ways.getByRole('button', { name: 'Remind 1 who have not answered' })).toBeVisible()
  expect((await responsesOf(page, id)).rows).toHaveLength(1)
})

test('a passphrase opens the form, and a short address leads to it', async ({ page, browser }) => {
  await releaseStage(page)
  const opening = page.getByRole('region', { name: 'Opening' })
  await opening.getByRole('button', { name: /^Who may answer/ }).click()
  await opening.getByLabel('Passphrase that opens the form').fill('splint and sling')
  await opening.getByRole('button', { name: 'Set', exact: true }).click()
  await expect(opening.getByText('A passphrase is asked for.')).toBeVisible()
  await opening.getByRole('button', { name: /^Short address/ }).click()
  await opening.getByRole('button', { name: 'Make a short address' }).click()
  const short = (await opening.getByTestId('short').textContent()) ?? ''
  const guest = await newPage(browser)
  await open(guest, new URL(short).pathname)
  await guest.getByLabel('Passphrase').fill('splint')
  await guest.getByRole('button', { name: 'Open the form' }).click()
  await expect(guest.getByText('That is not the passphrase.')).toBeVisible()
  await guest.getByLabel('Passphrase').fill('splint and sling')
  await guest.getByRole('button', { name: 'Open the form' }).click()
  await expect(guest.getByLabel('Your name')).toBeVisible()
  await ready(guest)
  await guest.getByLabel('Your name').fill('Oda')
  await send(guest)
  await thanked(guest)
})

test('a form stands inside pages of the sites that it names, as high as it is, and in no others', async ({
  page,
}) => {
  const { id, token } = await releaseStage(page)
  const base = new URL(page.url()).origin
  const html = `<h1>Club</h1><script src="${base}/embed.js" data-form="${base}/f/${token}"></script>`
  await page.route('**/club', route => route.fulfill({ contentType: 'text/html', body: html }))
  await page.goto('/club')
  const frame = page.frameLocator('iframe')
  await expect(frame.getByLabel('Your name')).toHaveCount(0)
  const opening = await (await page.request.get(`/api/forms/${id}/opening`)).json()
  const settings = { ...opening.settings, embedOn: [base] }
  expect((await page.request.put(`/api/forms/${id}/opening`, { data: settings })).status()).toBe(200)
  await page.goto('/club')
  await frame.getByLabel('Your name').fill('Oda')
  const heightOf = () => page.locator('iframe').evaluate(f => f.getBoundingClientRect().height)
  const inner = () => frame.locator('main').evaluate(m => m.getBoundingClientRect().height)
  await expect.poll(async () => Math.abs((await heightOf()) - (await inner()))).toBeLessThan(60)
  await frame.getByRole('button', { name: 'Check your answers' }).click()
  await expect(frame.getByRole('heading', { name: 'Check your answers' })).toBeVisible()
  await expect.poll(async () => Math.abs((await heightOf()) - (await inner()))).toBeLessThan(60)
})

test('what was sent is corrected by its own link, and begun answers go on elsewhere', async ({
  page,
  browser,
}) => {
  const { id, address } = await releaseStage(page)
  const opening = await (await page.request.get(`/api/forms/${id}/opening`)).json()
  const settings = { ...opening.settings, corrections: 'open' }
  await page.request.put(`/api/forms/${id}/opening`, { data: settings })
  const [phone, desk] = [await newPage(browser), await newPage(browser)]
  await open(phone, address)
  await phone.getByLabel('Your name').fill('Oda')
  await phone.getByRole('button', { name: /^Go on later/ }).click()
  const link = (await phone.getByTestId('continue').textContent()) ?? ''
  await open(desk, link)
  await expect(desk.getByLabel('Your name')).toHaveValue('Oda')
  expect(desk.url()).not.toContain('continue')
  await desk.getByLabel('Your e-mail').fill('oda@course.example')
  await send(desk)
  await thanked(desk)
  await desk.getByRole('button', { name: 'Post a copy to oda@course.example' }).click()
  await expect(desk.getByText('A copy is on its way')).toBeVisible()
  const saved = desk.waitForEvent('download')
  await desk.getByRole('button', { name: 'Save as PDF' }).click()
  expect((await saved).suggestedFilename()).toBe('course-1.pdf')
  await desk.getByRole('link', { name: /\/f\// }).click()
  const correct = desk.getByRole('button', { name: 'Correct them' })
  await correct.waitFor()
  // The button is drawn by the server, and answers once the page is awake.
  await ready(desk)
  await correct.click()
  await desk.getByLabel('Your name').fill('Oda Fisher')
  await send(desk)
  await thanked(desk)
  const { rows } = await responsesOf(page, id)
  expect(rows.map(r => r.cells.name)).toEqual(['Oda Fisher'])
  await open(page, `/forms/${id}/collect?response=${rows[0]?.id}`)
  await page.getByRole('button', { name: 'History: 1 step, 1 letter' }).click()
  await expect(page.getByText('Whoever had the link corrected the response')).toBeVisible()
})

test('two tabs of one response show the same, and send it once', async ({ page, browser }) => {
  const { id, address } = await releaseStage(page)
  const context = await browser.newContext()
  const [one, other] = [await context.newPage(), await context.newPage()]
  await open(one, address)
  await open(other, address)
  await one.getByLabel('Your name').fill('Oda')
  await expect(other.getByLabel('Your name')).toHaveValue('Oda')
  await other.getByLabel('Friday').check()
  await expect(one.getByLabel('Friday')).toBeChecked()
  await send(one)
  await thanked(one)
  await expect(other.getByText('These answers were sent or dropped in another tab')).toBeVisible()
  await send(other)
  await thanked(other)
  expect((await responsesOf(page, id)).rows).toHaveLength(1)
})
