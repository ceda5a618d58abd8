import { expect, test } from '@playwright/test'
import { releaseForm } from '../support/release'
import { linkTo, open, responsesOf, signIn } from './support'

/** A lending library of tools: who borrows asks, the warden looks at the tool. */
const FORM = {
  tobbin: 2,
  code: 'tools',
  title: 'Borrowing a tool',
  sections: [
    {
      code: 'wish',
      title: 'The wish',
      items: [{ kind: 'question', type: 'text', code: 'tool', label: 'Which tool?', required: true }],
    },
    {
      code: 'state',
      title: 'Its state',
      items: [
        { kind: 'question', type: 'text', code: 'edge', label: 'How is its edge?', required: true },
        { kind: 'question', type: 'file', code: 'photo', label: 'A photo of it' },
        { kind: 'question', type: 'text', code: 'handle', label: 'How is its handle?', required: true },
      ],
    },
  ],
  parties: [
    { code: 'borrower', name: 'Borrower' },
    { code: 'warden', name: 'Warden' },
  ],
  turns: [
    { code: 'ask', party: 'borrower', by: 'link', access: { wish: 'fills' } },
    { code: 'look', party: 'warden', by: 'link', access: { wish: 'reads', state: 'fills' } },
  ],
}

test('a turn half filled and left is gone on with elsewhere; who still types there is told by whom, and overwrites nothing', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const made = await page.request.post('/api/forms', { data: { definition: FORM } })
  const { id } = await made.json()
  const token = await releaseForm(page, id)
  const begunOn = new Date().toISOString().slice(0, 10)
  const asked = await page.request.post(`/api/answer/${token}`, {
    data: { release: 1, key: 'key-elsewhere-1', begunOn, answers: { tool: 'Adze' } },
  })
  expect(asked.status()).toBe(200)
  const [row] = (await responsesOf(page, id)).rows
  const { turns } = await (await page.request.get(`/api/responses/${row?.id}`)).json()
  const waiting: { id: string; handedOffAt: string | null } | undefined = turns.find(
    (t: { handedOffAt: string | null }) => t.handedOffAt === null,
  )
  const link = await linkTo(page, waiting?.id ?? '')

  const shed = await (await browser.newContext()).newPage()
  await open(shed, link)
  await shed.getByLabel('How is its edge?').fill('blunt')
  await shed.getByLabel('A photo of it').setInputFiles({
    ...{ name: 'edge.txt', mimeType: 'text/plain' },
    buffer: Buffer.from('A notch near the heel.'),
  })
  await expect(shed.getByRole('link', { name: 'edge.txt' })).toBeVisible()
  await expect(shed.getByText('Kept, also for going on elsewhere')).toBeVisible()

  // Signed in, the other one is known by name.
  await open(page, link)
  await expect(page.getByText('This turn was begun elsewhere.')).toBeVisible()
  await expect(page.getByLabel('How is its edge?')).toHaveValue('blunt')
  const photo = await page.getByRole('link', { name: 'edge.txt' }).getAttribute('href')
  expect(await (await page.request.get(photo ?? '')).text()).toBe('A notch near the heel.')
  await page.getByLabel('How is its handle?').fill('loose')
  await expect(page.getByText('Kept, also for going on elsewhere')).toBeVisible()

  await shed.getByLabel('How is its edge?').fill('very blunt')
  await expect(shed.getByText('Ines Marlow has gone on with this turn meanwhile.')).toBeVisible()
  await shed.getByRole('button', { name: 'Go on with theirs' }).click()
  await expect(shed.getByLabel('How is its handle?')).toHaveValue('loose')

  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Hand on' }).click()
  await expect(page.getByRole('heading', { name: 'Thank you' })).toBeVisible()
  await open(shed, link)
  await expect(shed.getByText('blunt')).toBeVisible()
  await expect(shed.getByLabel('How is its edge?')).toHaveCount(0)
  expect((await responsesOf(page, id)).rows[0]?.cells).toMatchObject({ edge: 'blunt', handle: 'loose' })
  await shed.context().close()
})
