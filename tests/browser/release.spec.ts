import { expect, test } from '@playwright/test'
import { releaseForm } from '../support/release'
import { newForm, row, saved, yesNo } from './scriptSupport'
import { errorsOf, open, signIn } from './support'

test('before it is released a draft tells what it changes since the last version', async ({ page }) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, {
    ...{ tobbin: 2, code: 'choir', title: 'Choir week' },
    sections: [
      {
        ...{ code: 's', title: 'Singing' },
        items: [
          ...['alto', 'bass', 'tenor'].map(code => yesNo(code)),
          yesNo('low', { shownWhen: 'bass = true' }),
        ],
      },
    ],
  })
  await releaseForm(page, id)
  await open(page, `/forms/${id}/write`)
  await row(page, 'tenor').focus()
  await page.keyboard.press('Alt+ArrowUp')
  await row(page, 'alto').focus()
  await page.keyboard.press('Delete')
  await row(page, 'bass').locator('.label').click()
  await page.getByLabel('Label', { exact: true }).fill('Do you sing bass?')
  await saved(page)
  const { revision } = await (await page.request.get(`/api/forms/${id}`)).json()
  const edits = [{ do: 'change', what: 'item/low', set: { shownWhen: 'bass = true or tenor = true' } }]
  await page.request.post(`/api/forms/${id}/edits`, { data: { base: revision, edits } })
  await open(page, `/forms/${id}/release`)
  const changes = page.getByRole('region', { name: 'Next version' })
  await expect(changes.getByRole('heading', { name: '4 changes since version 1' })).toBeVisible()
  await expect(changes.getByRole('listitem').filter({ hasText: 'Deletes' })).toContainText('alto')
  await expect(changes.getByRole('listitem').filter({ hasText: 'Changes' }).first()).toContainText(
    'Do you sing bass?',
  )
  const low = changes.getByRole('listitem').filter({ hasText: '“low” is asked of some who were not asked.' })
  await expect(low).toContainText('With tenor Yes')
  await expect(changes.getByText('“alto” is no longer asked of some who were asked.')).toBeVisible()
  await expect(changes.getByText('All else is the same for everyone')).toBeVisible()
  await changes
    .getByRole('listitem')
    .filter({ hasText: 'Do you sing bass?' })
    .first()
    .getByRole('button')
    .click()
  await expect(row(page, 'bass')).toBeVisible()
  await open(page, `/printed/form/${id}?version=1`)
  await expect(page.getByText('Only if “bass” (1.2) is Yes:')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Print…' })).toBeVisible()
  expect(errors).toEqual([])
})

test('a code that means something else stops a version until it has a new one; promises and stored responses are told', async ({
  page,
}) => {
  await signIn(page)
  const id = await newForm(page, {
    ...{ tobbin: 2, code: 'bees', title: 'Swarm report' },
    sections: [
      {
        ...{ code: 's', title: 'Swarm' },
        items: [
          yesNo('seen', { label: 'Have you seen a swarm?', required: true }),
          yesNo('high', { label: 'Does it hang high?', required: 'seen = true' }),
        ],
      },
    ],
    promises: [
      {
        code: 'told',
        text: 'Of each swarm the height is told',
        holds: 'if seen = true then high != null else true',
      },
    ],
  })
  const token = await releaseForm(page, id)
  const begunOn = new Date().toISOString().slice(0, 10)
  const sending = { release: 1, key: 'swarm-report-1', begunOn, answers: { seen: false } }
  expect((await page.request.post(`/api/answer/${token}`, { data: sending })).status()).toBe(200)
  const { revision } = await (await page.request.get(`/api/forms/${id}`)).json()
  const edits = [
    { do: 'change', what: 'item/seen', set: { label: 'Is there honey?' } },
    { do: 'change', what: 'item/high', set: { required: null } },
    {
      do: 'insert',
      into: 'section/s',
      at: 2,
      node: yesNo('name_it', { label: 'May we come?', required: true }),
    },
    { do: 'change', what: 'form', set: { promises: null } },
  ]
  await page.request.post(`/api/forms/${id}/edits`, { data: { base: revision, edits } })
  await open(page, `/forms/${id}/release`)
  const next = page.getByRole('region', { name: 'Next version' })
  await expect(
    next.getByText('The promise “Of each swarm the height is told” held, and no longer does.'),
  ).toBeVisible()
  await expect(next.getByText('1 would lack an answer')).toBeVisible()
  const release = page.getByRole('button', { name: 'Release version 2' })
  await expect(release).toBeDisabled()
  await next.getByRole('button', { name: 'Give it a new code' }).click()
  await expect(next.getByRole('heading', { name: 'Codes that mean something else' })).toBeHidden()
  await saved(page)
  await expect(release).toBeEnabled()
  await release.click()
  await expect(page.getByText('The draft is the same as version 2.')).toBeVisible()
  const { draft } = await (await page.request.get(`/api/forms/${id}`)).json()
  expect(draft.sections[0].items.map((i: { code: string }) => i.code)).toEqual(['seen_2', 'high', 'name_it'])
})

test('a version waits for a second person’s approval, who sees its note and releases it', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const id = await newForm(page, {
    ...{ tobbin: 2, code: 'grant', title: 'Grant' },
    sections: [{ ...{ code: 's', title: 'Grant' }, items: [yesNo('needed')] }],
  })
  const holder = (await (await page.request.get('/api/directory')).json()).people.find(
    (p: { email: string }) => p.email === 'tobias@wherry.example',
  )
  const share = { holder: { kind: 'person', id: holder.id }, rights: ['release'] }
  await page.request.put(`/api/forms/${id}/shares`, { data: share })
  await open(page, `/forms/${id}/release`)
  await page.getByLabel('A second person approves each version').check()
  await page.getByLabel('Note to this version').fill('Asked for by the council.')
  await page.getByRole('button', { name: 'Ask for approval' }).click()
  await expect(page.getByText('You ask that this version is approved')).toBeVisible()
  await expect(page.getByRole('button', { name: /Release version 1|Approve/ })).toHaveCount(0)
  const second = await (await browser.newContext()).newPage()
  await open(second, '/sign-in')
  await second.getByLabel('E-mail').fill('tobias@wherry.example')
  await second.getByLabel('Password').fill('wherry-reach')
  await second.getByRole('button', { name: 'Sign in' }).click()
  await expect(second.getByRole('heading', { name: 'Forms' })).toBeVisible()
  await open(second, `/forms/${id}/release`)
  await expect(second.getByText('“Asked for by the council.”')).toBeVisible()
  await second.getByRole('button', { name: 'Approve and release version 1' }).click()
  const versions = second.getByRole('region', { name: 'Versions' })
  await expect(versions.getByText('Asked for by the council.')).toBeVisible()
  await versions.getByRole('button', { name: 'Check its proof' }).click()
  await expect(versions.getByText('Proved again')).toBeVisible()
})
