import { expect, test } from '@playwright/test'
import { newForm } from './scriptSupport'
import { errorsOf, open, signIn } from './support'
import { releaseForm } from '../support/release'

const FORM = {
  tobbin: 2 as const,
  code: 'night_handover',
  title: 'Night handover',
  sections: [
    {
      code: 's',
      title: 'Who goes on',
      items: [{ kind: 'question' as const, type: 'text' as const, code: 'beds', label: 'Beds' }],
    },
  ],
}

test('a question offers the people of a team, and a page that was kept ready follows it', async ({
  page,
  browser,
  request,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const ids: string[] = []
  for (const name of ['Ada Lock', 'Jon Weir']) {
    const email = `${name.slice(0, 3)}-${Date.now()}@wherry.example`
    await page.request.post('/api/people', { data: { name, email, role: 'member' } })
    const people: { id: string; email: string }[] = await (await page.request.get('/api/people')).json()
    ids.push(people.find(p => p.email === email.toLowerCase())?.id ?? '')
  }
  const name = `Night crew ${Date.now()}`
  const team = await (await page.request.post('/api/teams', { data: { name, members: ids } })).json()
  const id = await newForm(page, FORM)
  await open(page, `/forms/${id}/write?view=lists`)
  await page.getByRole('button', { name: '+ people of a team' }).click()
  await page.getByText(name, { exact: true }).click()
  await expect(page.getByRole('cell', { name: 'Jon Weir' })).toBeVisible()
  const loaded = await (await page.request.get(`/api/forms/${id}`)).json()
  const node = {
    kind: 'question',
    type: 'choice',
    code: 'who',
    label: 'Who?',
    list: loaded.draft.lists[0].code,
  }
  const edits = [{ do: 'insert', into: 'section/s', at: 0, node }]
  await page.request.post(`/api/forms/${id}/edits`, { data: { base: loaded.revision, edits } })
  const token = await releaseForm(page, id)

  const nonceIn = (policy: string) => /'nonce-([^']+)'/.exec(policy)?.[1] ?? ''
  const seen = new Set<string>()
  for (const _ of [1, 2, 3]) {
    const answer = await request.get(`/f/${token}`)
    const html = await answer.text()
    const nonce = nonceIn(answer.headers()['content-security-policy'] ?? '')
    seen.add(nonce)
    for (const [, own] of html.matchAll(/<(?:script|style)[^>]* nonce="([^"]*)"/g)) expect(own).toBe(nonce)
    expect(html).toContain('Jon Weir')
  }
  expect(seen.size).toBe(3)
  await page.request.put(`/api/teams/${team.id}`, { data: { name, members: ids.slice(0, 1) } })
  const guest = await (await browser.newContext()).newPage()
  const guestErrors = errorsOf(guest)
  await open(guest, `/f/${token}`)
  await expect(guest.getByLabel('Ada Lock')).toBeVisible()
  await expect(guest.getByText('Jon Weir')).toHaveCount(0)
  await guest.reload()
  await expect(guest.getByLabel('Ada Lock')).toBeVisible()
  expect([...errors, ...guestErrors]).toEqual([])
})
