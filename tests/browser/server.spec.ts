import { readFileSync } from 'node:fs'
import { expect, test, type APIRequestContext, type Locator, type Page } from '@playwright/test'
import { violationsOn } from './accessibility'
import { giveFiles, open, openForm, responsesOf, signIn } from './support'

const clean = { begunOn: new Date().toISOString().slice(0, 10), release: 1 }
const answers = { happened_on: clean.begunOn, kind: 'mistake' }
const send = (request: APIRequestContext, body: Record<string, unknown>) =>
  request.post('/api/answer/demo_slipway_incident', {
    data: { ...clean, key: 'key-0123456789', answers, ...body },
  })

test('forged and outdated responses get a clear error, and nothing is stored', async ({ page, request }) => {
  await signIn(page)
  // Other tests bring in copies with the same code: the one that collects is meant.
  const collecting = async () => {
    const forms: { id: string; code: string; responses: number }[] = await (
      await page.request.get('/api/forms')
    ).json()
    return forms.find(f => f.code === 'slipway_incident' && f.responses > 0)
  }
  const count = async () => (await collecting())?.responses
  const before = await count()
  const refusals: [Record<string, unknown>, number, RegExp][] = [
    [{ release: 7 }, 409, /another version/],
    [{ answers: { ...answers, kind: 'explosion' } }, 422, /don’t fit/],
    [{ answers: { ...answers, secret: 'x' } }, 422, /does not have/],
    [{ answers: { kind: 'injury', happened_on: clean.begunOn } }, 422, /don’t fit/],
    [{ answers: { ...answers, happened_on: 20261124 } }, 422, /don’t fit/],
    [{ begunOn: '2001-01-01' }, 422, /within/],
    [{ begunOn: '2026-02-30' }, 400, /2026-05-01/],
    [{ answers: ['x'] }, 400, /doesn’t fit/],
    [{ extra: true }, 400, /extra/],
  ]
  for (const [body, status, sentence] of refusals) {
    const response = await send(request, body)
    expect(response.status()).toBe(status)
    const { data } = await response.json()
    expect(data.sentence).toMatch(sentence)
  }
  expect(await count()).toBe(before)
  // What is not in play is not stored; the same sending twice is stored once, and another one under its key is refused.
  const whole = { answers: { ...answers, hurt_age: 12, told: 'hidden' } }
  for (const _ of [1, 2]) expect((await send(request, whole)).status()).toBe(200)
  expect((await send(request, {})).status()).toBe(409)
  expect(await count()).toBe((before ?? 0) + 1)
  const id = (await collecting())?.id
  const { rows } = await responsesOf(page, id ?? '')
  const asked = Object.entries(rows[0]?.cells ?? {}).filter(([, text]) => text !== '·' && text !== '')
  expect(asked.map(([code]) => code).sort()).toEqual(Object.keys(answers).sort())
})

test('designers’ routes refuse whoever is not signed in', async ({ request }) => {
  const id = '00000000-0000-4000-8000-000000000000'
  for (const path of ['/api/forms', `/api/forms/${id}`, `/api/forms/${id}/responses`, `/api/responses/${id}`])
    expect((await request.get(path)).status()).toBe(401)
  for (const path of ['/api/forms', `/api/forms/${id}/edits`, `/api/forms/${id}/releases`])
    expect((await request.post(path, { data: {} })).status()).toBe(401)
  expect(
    (
      await request.post('/api/session', { data: { email: 'ines@wherry.example', password: 'wrong' } })
    ).status(),
  ).toBe(401)
})

test('a session’s cookie is out of reach of scripts, and worth nothing after signing out', async ({
  page,
  context,
}) => {
  await signIn(page)
  const cookie = (await context.cookies()).find(c => c.name === 'tobbin-session')
  const days = ((cookie?.expires ?? 0) - Date.now() / 1000) / 86_400
  expect(days).toBeGreaterThan(13.9)
  expect(days).toBeLessThanOrEqual(14)
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax', secure: true })
  expect((await page.request.get('/api/forms')).status()).toBe(200)
  expect((await page.request.delete('/api/session')).ok()).toBe(true)
  expect((await page.request.get('/api/forms')).status()).toBe(401)
  if (cookie) await context.addCookies([cookie])
  expect((await page.request.get('/api/forms')).status()).toBe(401)
})

test('bodies are counted as they come, whatever length was announced; odd addresses lead nowhere', async ({
  baseURL,
}) => {
  const endless = (megabytes: number) =>
    new ReadableStream({
      pull(controller) {
        if (megabytes-- > 0) controller.enqueue(new Uint8Array(1_000_000).fill(32))
        else controller.close()
      },
    })
  const post = (path: string, body: BodyInit) => {
    const init: RequestInit & { duplex: 'half' } = { method: 'POST', body, duplex: 'half' }
    return fetch(`${baseURL}${path}`, init).then(
      r => r.status,
      () => 0,
    )
  }
  // The connection may be closed before all was sent: then no answer is read, and nothing was taken either.
  for (const path of ['/api/session', '/api/answer/demo_slipway_incident', '/api/set-up'])
    expect([413, 0]).toContain(await post(path, endless(60)))
  expect(await post('/api/session', '{}')).toBe(400)
  const get = async (path: string) => (await fetch(`${baseURL}${path}`)).status
  for (const path of ['/api/answer/%00', '/api/answer/%zz', '/f/%00', '/nowhere', '/api/forms/..%2f']) {
    const status = await get(path)
    expect(status, path).toBeGreaterThanOrEqual(400)
    expect(status, path).toBeLessThan(500)
  }
  expect(await get('/api/health')).toBe(200)
})

test('a bad definition gets every problem with its path and changes nothing; a good one comes in', async ({
  page,
}) => {
  await signIn(page)
  const forms = async () => ((await (await page.request.get('/api/forms')).json()) as unknown[]).length
  const before = await forms()
  await giveFiles(page, 'Import…', {
    name: 'bad.form.json',
    mimeType: 'application/json',
    buffer: Buffer.from(
      JSON.stringify({
        tobbin: 2,
        code: 'Bad',
        title: 'Bad',
        extra: 1,
        sections: [
          { code: 's', title: 'S', items: [{ kind: 'question', type: 'txt', code: 'q', label: 'Q' }] },
        ],
      }),
    ),
  })
  await expect(page.getByRole('alert')).toContainText('nothing was changed')
  for (const path of ['code', 'extra', 'sections[0].items[0].type'])
    await expect(page.getByRole('alert').locator('code', { hasText: path }).first()).toBeVisible()
  expect(await forms()).toBe(before)
  await giveFiles(page, 'Import…', {
    name: 'good.form.json',
    mimeType: 'application/json',
    buffer: readFileSync('demo/forms/mooring.form.json'),
  })
  await expect(page.getByRole('group', { name: 'What the files bring' })).toContainText('faults')
  await page.getByRole('button', { name: 'Bring it in' }).click()
  await expect(page.getByRole('region', { name: 'Script' })).toContainText('Name of the club')
  // Two people on one draft: the second to save is told, and nothing of the first is lost.
  const id = page.url().split('/')[4]
  const edit = (base: number, title: string) =>
    page.request.post(`/api/forms/${id}/edits`, {
      data: { base, edits: [{ do: 'change', what: 'form', set: { title } }] },
    })
  expect((await edit(0, 'First')).status()).toBe(200)
  expect((await edit(0, 'Second')).status()).toBe(409)
  expect((await (await page.request.get(`/api/forms/${id}`)).json()).draft.title).toBe('First')
})

/** Every stage and every view of Write: its address, and what stands there once it is shown. */
const VIEWS: readonly (readonly [string, (page: Page) => Locator])[] = [
  ['write', page => page.getByRole('region', { name: 'Script' })],
  ['write?view=lists', page => page.getByRole('complementary', { name: 'Choice lists' })],
  ['write?view=parties', page => page.getByRole('region', { name: 'Parties and turns' })],
  ['write?view=rulebook', page => page.getByRole('region', { name: 'Rulebook' })],
  ['write?view=settings', page => page.getByRole('region', { name: 'Form settings' })],
  ['rehearse', page => page.getByRole('region', { name: 'Rehearsal' })],
  ['prove', page => page.getByRole('region', { name: 'Findings' })],
  ['release', page => page.getByRole('heading', { name: /Release|Version/ }).first()],
  ['collect', page => page.getByRole('heading', { name: /responses/ }).first()],
]

/** Dialogs, and a message in passing. */
async function lookAtWhatFloats(page: Page, look: (name: string) => Promise<void>) {
  for (const name of ['Keys of the script', 'Paste an outline']) {
    await page.getByRole('button', { name, exact: true }).click()
    await expect(page.getByRole('dialog', { name })).toBeVisible()
    await look(name)
    await page.keyboard.press('Escape')
    await expect(page.getByRole('dialog', { name })).toHaveCount(0)
  }
  await page.keyboard.press('Alt+n')
  await expect(page.getByText('Started afresh.')).toBeVisible()
  await look('a message in passing')
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`no accessibility violation on the main pages, ${colorScheme}`, async ({ browser }) => {
    const context = await browser.newContext({ colorScheme })
    const page = await context.newPage()
    const violations: string[] = []
    const look = async (name: string) => void violations.push(...(await violationsOn(page, name)))
    await page.setViewportSize({ width: 360, height: 740 })
    await open(page, '/f/demo_haul_out')
    await look('answer')
    await page.getByRole('button', { name: /Next/ }).click()
    await look('answer with errors')
    await page.setViewportSize({ width: 1280, height: 800 })
    await signIn(page)
    await look('home')
    await openForm(page, 'Haul-out and works request')
    await expect(page.getByRole('region', { name: 'Script' })).toBeVisible()
    const form = page.url().replace(/write.*/, '')
    for (const [view, sign] of VIEWS) {
      await open(page, form + view)
      await expect(sign(page)).toBeVisible()
      await look(view)
    }
    await open(page, '/')
    await openForm(page, 'Mooring renewal')
    await page.getByRole('button', { name: 'Name of the club', exact: false }).first().click()
    await expect(page.getByText('is not among the choices').first()).toBeVisible()
    await look('write, a row open')
    await lookAtWhatFloats(page, look)
    await page.getByRole('link', { name: /Prove/ }).click()
    await expect(page.getByText(/Not ready/)).toBeVisible()
    await look('prove with faults')
    expect(violations).toEqual([])
    await context.close()
  })
}
