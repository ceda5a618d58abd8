import { expect, test, type Browser, type Page } from '@playwright/test'
import { releaseForm } from '../support/release'
import { open, responsesOf, signIn } from './support'

/** A kennel’s boarding form: the owner asks, the kennel answers, a vet looks. */
const FORM = {
  tobbin: 2,
  code: 'boarding',
  title: 'Boarding a dog',
  sections: [
    {
      code: 'dog',
      title: 'The dog',
      items: [
        { kind: 'question', type: 'text', code: 'called', label: 'What is it called?', required: true },
      ],
    },
    {
      code: 'stay',
      title: 'The stay',
      items: [{ kind: 'question', type: 'text', code: 'run', label: 'Which run?', required: true }],
    },
    {
      code: 'health',
      title: 'Health',
      items: [{ kind: 'question', type: 'yesNo', code: 'fit', label: 'Is it fit to stay?', required: true }],
    },
  ],
  parties: [
    { code: 'owner', name: 'Dog owner' },
    { code: 'kennel', name: 'Kennel' },
    { code: 'vet', name: 'Vet' },
  ],
  turns: [
    { code: 'ask', party: 'owner', by: 'link', access: { dog: 'fills' } },
    {
      code: 'place',
      party: 'kennel',
      by: { person: 'kennel@wherry.example' },
      due: { days: 2, working: true },
      reminders: [0],
      linkDays: 14,
      access: { dog: 'reads', stay: 'fills' },
    },
    {
      code: 'look',
      party: 'vet',
      by: { person: 'vet@wherry.example' },
      access: { dog: 'reads', health: 'fills' },
    },
  ],
}

const stranger = async (browser: Browser) => (await browser.newContext()).newPage()
async function handOn(page: Page) {
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Hand on' }).click()
}
/** The link in the newest letter to somebody, as Collect has it. */
async function letterTo(page: Page, form: string, address: string): Promise<string> {
  const [response] = (await responsesOf(page, form)).rows
  const { history } = await (await page.request.get(`/api/responses/${response?.id}`)).json()
  const letters = history.filter(
    (h: { kind: string; to: string[] }) => h.kind === 'posted' && h.to[0] === address,
  )
  return /\/f\/[\w-]+/.exec(letters.at(-1)?.text ?? '')?.[0] ?? ''
}
async function act(page: Page, title: string | RegExp, fields: Record<string, string>, button: string) {
  await page.getByRole('button', { name: 'More for response 1' }).click()
  await page.getByRole('listitem').filter({ hasText: title }).click()
  for (const [label, text] of Object.entries(fields)) await page.getByLabel(label).fill(text)
  await page.getByRole('button', { name: button, exact: true }).click()
}

/** What Collect offers to look at. */
const lookAt = (page: Page, what: string) =>
  page.getByRole('navigation', { name: 'What is looked at' }).getByText(what)

test('three parties in three browsers: given to somebody else on the board, given back, and done', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const { id } = await (await page.request.post('/api/forms', { data: { definition: FORM } })).json()
  const token = await releaseForm(page, id)
  const [owner, kennel, vet] = [await stranger(browser), await stranger(browser), await stranger(browser)]

  await open(owner, `/f/${token}`)
  await owner.getByLabel('What is it called?').fill('Bramble')
  await handOn(owner)
  await expect(owner.getByRole('heading', { name: 'Handed on to Kennel' })).toBeVisible()
  const ownLink = (await owner.getByRole('link', { name: /\/f\// }).getAttribute('href')) ?? ''

  await open(page, `/forms/${id}/collect`)
  await lookAt(page, 'In progress').click()
  const row = page.getByRole('row', { name: /Kennel/ })
  await expect(row).toContainText('kennel@wherry.example')
  const first = await letterTo(page, id, 'kennel@wherry.example')
  await act(
    page,
    'Give it to somebody else',
    { 'To whom': 'night@wherry.example', Why: 'On leave.' },
    'Give it to them',
  )
  await expect(row).toContainText('night@wherry.example')
  await open(kennel, first)
  await expect(kennel.getByText('This link was revoked.')).toBeVisible()

  await open(kennel, await letterTo(page, id, 'night@wherry.example'))
  await kennel.getByRole('button', { name: /Give it back to Dog owner/ }).click()
  await kennel.getByLabel('What should Dog owner change?').fill('Its full name, please.')
  await kennel.getByRole('button', { name: 'Give back', exact: true }).click()
  await expect(kennel.getByRole('heading', { name: 'Given back to Dog owner' })).toBeVisible()
  await open(owner, ownLink)
  await expect(owner.getByText('Its full name, please.')).toBeVisible()
  await owner.getByLabel('What is it called?').fill('Bramble of the Reach')
  await handOn(owner)
  await expect(owner.getByRole('heading', { name: 'Handed on to Kennel' })).toBeVisible()

  await kennel.reload()
  await kennel.getByLabel('Which run?').fill('7')
  await handOn(kennel)
  await expect(kennel.getByRole('heading', { name: 'Handed on to Vet' })).toBeVisible()
  await open(vet, await letterTo(page, id, 'vet@wherry.example'))
  await vet.getByText('Yes', { exact: true }).click()
  await handOn(vet)
  await expect(vet.getByRole('heading', { name: 'Thank you' })).toBeVisible()

  await open(page, `/forms/${id}/collect`)
  await page.getByRole('table').getByRole('button').first().click()
  const panel = page.getByRole('complementary', { name: 'One response' })
  await panel.getByRole('button', { name: /History/ }).click()
  await expect(panel).toContainText('Ines Marlow gave “Kennel” to night@wherry.example: “On leave.”')
  await expect(panel).toContainText('night@wherry.example gave “Kennel” back to “Dog owner”')
  await expect(panel).toContainText('What is it called?: Bramble → Bramble of the Reach')
})

test('a response that nobody needs is withdrawn; its links say so', async ({ page, browser }) => {
  await signIn(page)
  const { id } = await (await page.request.post('/api/forms', { data: { definition: FORM } })).json()
  const owner = await stranger(browser)
  await open(owner, `/f/${await releaseForm(page, id)}`)
  await owner.getByLabel('What is it called?').fill('Moss')
  await handOn(owner)
  await expect(owner.getByRole('heading', { name: 'Handed on to Kennel' })).toBeVisible()
  const link = await letterTo(page, id, 'kennel@wherry.example')
  await open(page, `/forms/${id}/collect`)
  await lookAt(page, 'In progress').click()
  await act(page, 'Withdraw', { Why: 'The trip is off.' }, 'Withdraw it')
  await expect(page.getByText('No response is in progress.')).toBeVisible()
  await lookAt(page, 'All responses').click()
  await expect(page.getByRole('cell', { name: 'withdrawn' })).toBeVisible()
  await open(owner, link)
  await expect(owner.getByText('This response was withdrawn')).toBeVisible()
})
