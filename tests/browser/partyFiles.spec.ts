import { expect, test } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { linkTo, open, signIn } from './support'
import { releaseForm } from '../support/release'

const file = (code: string, label: string, more = {}) => ({
  kind: 'question',
  type: 'file',
  code,
  label,
  ...more,
})
const FORM = {
  tobbin: 2,
  code: 'party_files',
  title: 'Survey of a mast',
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'rigger', name: 'Rigger' },
  ],
  sections: [
    {
      code: 'mast',
      title: 'Mast',
      items: [file('drawing', 'Drawing'), file('invoice', 'Invoice of the mast', { privateTo: 'owner' })],
    },
    {
      code: 'work',
      title: 'Work',
      items: [{ kind: 'question', type: 'text', code: 'todo', label: 'What is to be done?' }],
    },
  ],
  turns: [
    { code: 'first', party: 'owner', by: 'link', access: { mast: 'fills' } },
    { code: 'second', party: 'rigger', by: 'link', access: { mast: 'reads', work: 'fills' } },
  ],
}

test('a party fetches the files that it sees, and no others', async ({ page, request }) => {
  await signIn(page)
  const { id } = await (await page.request.post('/api/forms', { data: { definition: FORM } })).json()
  const link = `/api/answer/${await releaseForm(page, id)}`
  const key = 'key-of-party-files'
  const give = async (question: string) => {
    const given = await request.post(`${link}/files?question=${question}&key=${key}&name=${question}.txt`, {
      data: Buffer.from(`The ${question} in words.`),
      headers: { 'content-type': 'application/octet-stream' },
    })
    return given.json()
  }
  const answers = { drawing: [await give('drawing')], invoice: [await give('invoice')] }
  const begunOn = new Date().toISOString().slice(0, 10)
  const sent = await request.post(link, { data: { release: 1, key, begunOn, answers } })
  expect(sent.status(), await sent.text()).toBe(200)
  const { rows } = await (await page.request.get(`/api/forms/${id}/responses`)).json()
  const { turns } = await (await page.request.get(`/api/responses/${rows[0].id}`)).json()
  const turn = turns.find((t: { handedOffAt: string | null }) => t.handedOffAt === null)
  const own = await linkTo(page, turn.id)
  const token = own.replace('/f/', '')
  await open(page, own)
  await page.getByRole('button', { name: 'Back', exact: true }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'drawing.txt' }).click(),
  ])
  expect(readFileSync(await download.path(), 'utf8')).toBe('The drawing in words.')
  await expect(page.getByText('invoice.txt')).toHaveCount(0)
  const asked = (token: string, given: { file: string }[]) =>
    request.get(`/api/answer/${token}/files/${given[0]?.file}`).then(r => r.status())
  expect(await asked(token, answers.drawing)).toBe(200)
  expect(await asked(token, answers.invoice)).toBe(404)
  // The open link of the release leads to no response.
  expect(await asked(link.split('/').at(-1) ?? '', answers.drawing)).toBe(404)
})
