import { expect, test, type Page, type Browser, type APIRequestContext } from '@playwright/test'
import { choose, linkTo, open, responsesOf, signIn } from './support'
import { releaseForm } from '../support/release'

const FORM = {
  tobbin: 2,
  code: 'crane',
  title: 'Crane hire',
  parties: [
    { code: 'hirer', name: 'Hirer' },
    { code: 'yard', name: 'Yard', office: true },
  ],
  sections: [
    {
      code: 'ask',
      title: 'What is lifted?',
      items: [
        { kind: 'question', type: 'integer', code: 'weight', label: 'Weight', required: true },
        { kind: 'question', type: 'text', code: 'mate', label: 'Who helps?', shownWhen: 'weight > 50' },
      ],
    },
    {
      code: 'price',
      title: 'Price',
      items: [
        {
          kind: 'question',
          type: 'integer',
          code: 'fee',
          label: 'Fee',
          required: true,
          validWhen: [{ rule: 'fee >= weight', message: 'Less than {{ weight }} is too little.' }],
        },
        { kind: 'question', type: 'text', code: 'margin', label: 'Our margin', officeOnly: true },
        { kind: 'question', type: 'yesNo', code: 'heavy', label: 'Two cranes?', required: true },
      ],
    },
    {
      code: 'sign',
      title: 'Agree',
      items: [
        {
          kind: 'note',
          code: 'n_heavy',
          text: 'Two cranes come.',
          shownWhen: 'heavy = true and margin != null',
        },
        {
          kind: 'note',
          code: 'n_dear',
          text: 'Bring a mate, {{ margin }}.',
          shownWhen: 'heavy = true and agreed = true',
        },
        { kind: 'question', type: 'yesNo', code: 'agreed', label: 'Do you agree?', required: true },
      ],
    },
  ],
  turns: [
    { code: 'asks', party: 'hirer', by: 'link', access: { ask: 'fills' } },
    {
      code: 'prices',
      party: 'yard',
      by: { team: ['yard@wherry.example'] },
      access: { ask: 'reads', price: 'fills' },
    },
    { code: 'agrees', party: 'hirer', by: 'link', access: { ask: 'reads', sign: 'fills', fee: 'reads' } },
  ],
}

const yes = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name }).getByText('Yes', { exact: true })

interface Taken {
  id: string
  handedOffAt: string | null
  givenBackAt: string | null
}
type TurnLink = () => ReturnType<typeof newestTurn>
/** The newest response of a form, with a link to the turn that is open. */
async function newestTurn(page: Page, form: string) {
  const { rows } = await responsesOf(page, form)
  const [response] = rows
  if (!response) throw new Error('There is no response.')
  const answer = await page.request.get(`/api/responses/${response.id}`)
  const details: { begunOn: string; turns: Taken[] } = await answer.json()
  const waiting = details.turns.find(t => t.handedOffAt === null && t.givenBackAt === null)
  return { url: waiting ? await linkTo(page, waiting.id) : '', response, details }
}

async function takeFirstTurn(
  browser: Browser,
  request: APIRequestContext,
  token: string,
  page: Page,
  id: string,
) {
  // The first turn: its page holds nothing of the others'.
  const hirer = await (await browser.newContext()).newPage()
  expect(JSON.stringify(await (await request.get(`/api/answer/${token}`)).json())).not.toMatch(
    /margin|heavy|fee|prices|yard/,
  )
  await open(hirer, `/f/${token}`)
  await hirer.getByLabel('Weight').fill('30')
  await hirer.getByRole('button', { name: 'Check your answers' }).click()
  await hirer.getByRole('button', { name: 'Hand on' }).click()
  await expect(hirer.getByRole('heading', { name: 'Handed on to Yard' })).toBeVisible()
  const turnLink = () => newestTurn(page, id)
  return { turnLink, hirer }
}

async function forgeSecondTurn(turnLink: TurnLink, request: APIRequestContext) {
  // What a turn does not fill can't be given, and its own rules are decided again on the server.
  const second = await turnLink()
  expect(second.response).toMatchObject({ turn: 'Yard', cells: { weight: '30' } })
  const post = (answers: object) =>
    request.post(second.url.replace('/f/', '/api/answer/'), {
      data: { release: 1, key: 'key-12345678', begunOn: second.details.begunOn, answers },
    })
  expect((await post({ fee: 40, heavy: true, weight: 1 })).status()).toBe(422)
  expect((await post({ fee: 20, heavy: true })).status()).toBe(422)
  return { second }
}

async function giveBack(
  browser: Browser,
  second: Awaited<ReturnType<TurnLink>>,
  hirer: Page,
  turnLink: TurnLink,
) {
  // The yard gives it back with a remark; the hirer’s turn is open again.
  const yard = await (await browser.newContext()).newPage()
  await open(yard, second.url)
  await yard.getByRole('button', { name: 'Back', exact: true }).click()
  await expect(yard.locator('dl.read')).toContainText('30')
  await yard.getByRole('button', { name: /Next/ }).click()
  await yard.getByLabel('Fee').fill('45')
  await expect(yard.getByText('Kept, also for going on elsewhere')).toBeVisible()
  await yard.getByRole('button', { name: 'Give it back to Hirer instead' }).click()
  await yard.getByLabel('What should Hirer change?').fill('That boat is heavier.')
  await choose(yard, 'Which questions is it about? optional', 'Weight')
  await yard.keyboard.press('Escape')
  await yard.getByRole('button', { name: 'Give back', exact: true }).click()
  await expect(yard.getByRole('heading', { name: 'Given back to Hirer' })).toBeVisible()
  await open(hirer, (await turnLink()).url)
  await expect(hirer.getByText('That boat is heavier.')).toBeVisible()
  await hirer.getByRole('button', { name: 'Weight' }).click()
  await expect(hirer.getByRole('button', { name: 'Weight' })).toBeVisible()
  await hirer.getByLabel('Weight').fill('60')
  await expect(hirer.getByLabel('Who helps?')).toBeVisible()
  await hirer.getByRole('button', { name: 'Check your answers' }).click()
  await hirer.getByRole('button', { name: 'Hand on' }).click()
  await expect(hirer.getByRole('heading', { name: 'Handed on to Yard' })).toBeVisible()
  return { yard }
}

async function takeSecondTurn(yard: Page) {
  // The same link opens again, with what was filled before it was given back.
  await yard.reload()
  await expect(yard.getByLabel('Fee')).toHaveValue('45')
  await yard.getByLabel('Our margin').fill('secret margin')
  await yes(yard, 'Two cranes?').click()
  await yard.getByRole('button', { name: 'Check your answers' }).click()
  await expect(yard.getByText('Less than 60 is too little.')).toHaveCount(2)
  await yard.getByLabel('Fee').fill('90')
  await yard.getByRole('button', { name: 'Check your answers' }).click()
  await yard.getByRole('button', { name: 'Hand on' }).click()
  await expect(yard.getByRole('heading', { name: 'Handed on to Hirer' })).toBeVisible()
  await yard.reload()
  await expect(yard.getByRole('heading', { name: 'Handed on' })).toBeVisible()
}

async function takeThirdTurn(turnLink: TurnLink, request: APIRequestContext, hirer: Page) {
  // The last turn knows the outcome of rules over hidden answers, asked anew as it answers, and never the answers.
  const third = await turnLink()
  const served = await (await request.get(third.url.replace('/f/', '/api/answer/'))).text()
  expect(served).toContain('Do you agree?')
  expect(served).not.toMatch(/margin|heavy =/)
  await open(hirer, third.url)
  await hirer.getByRole('button', { name: 'Back', exact: true }).click()
  await expect(hirer.locator('dl.read')).toContainText('90')
  await hirer.getByRole('button', { name: /Next/ }).click()
  await expect(hirer.getByText('Two cranes come.')).toBeVisible()
  await expect(hirer.getByText('Bring a mate')).toBeHidden()
  await yes(hirer, 'Do you agree?').click()
  await expect(hirer.getByText('Bring a mate, .')).toBeVisible()
  await hirer.getByRole('button', { name: 'Check your answers' }).click()
  await hirer.getByRole('button', { name: 'Hand on' }).click()
  await expect(hirer.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  expect((await turnLink()).response).toMatchObject({
    turn: null,
    cells: { weight: '60', fee: '90', margin: 'secret margin', heavy: 'Yes', agreed: 'Yes' },
  })
}

async function readAsDesigner(page: Page, id: string) {
  // The designer sees it: turns and messages in Collect, each party in the rehearsal.
  await open(page, `/forms/${id}/collect`)
  await page.getByRole('table').getByRole('button').first().click()
  await expect(page.getByRole('complementary', { name: 'One response' }).getByText('handed on')).toHaveCount(
    3,
  )
  // The link of a response leads to it; on paper it has its history.
  const [response] = (await responsesOf(page, id)).rows
  await open(page, `/forms/${id}/collect?response=${response?.id}`)
  const paper = await page.getByRole('link', { name: 'To be printed' }).getAttribute('href')
  await open(page, paper ?? '')
  await expect(page.getByRole('heading', { name: 'Crane hire' })).toBeVisible()
  await expect(page.getByText('secret margin', { exact: true })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'History' })).toBeVisible()
  await expect(page.getByText('gave “Yard” back to “Hirer”')).toHaveCount(1)
  // A private link is not for paper.
  await expect(page.getByText('Letter to yard@wherry.example').first()).toBeVisible()
  await expect(page.getByText('to go on.')).toHaveCount(0)
  await open(page, `/forms/${id}/rehearse`)
  await choose(page.getByRole('group', { name: 'Frame 2' }), 'Rehearse as', 'as Hirer, turn 1')
  await expect(page.getByRole('group', { name: 'Frame 2' }).getByText('Part 1 of 1')).toBeVisible()
}

test('three turns at one response: each party sees and fills its part, gives back, and hands on', async ({
  page,
  browser,
  request,
}) => {
  await signIn(page)
  const made = await page.request.post('/api/forms', { data: { definition: FORM } })
  const { id } = await made.json()
  const token = await releaseForm(page, id)
  const { turnLink, hirer } = await test.step('the first turn: its page holds nothing of the others’', () =>
    takeFirstTurn(browser, request, token, page, id))
  const { second } = await test.step('what a turn does not fill can’t be given', () =>
    forgeSecondTurn(turnLink, request))
  const { yard } = await test.step('the yard gives it back with a remark', () =>
    giveBack(browser, second, hirer, turnLink))
  await test.step('the yard’s own checks hold; it hands on', () => takeSecondTurn(yard))
  await test.step('the last turn knows outcomes over hidden answers, never the answers', () =>
    takeThirdTurn(turnLink, request, hirer))
  await test.step('turns and messages in Collect, each party in the rehearsal', () =>
    readAsDesigner(page, id))
})
