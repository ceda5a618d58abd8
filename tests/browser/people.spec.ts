import { expect, test, type Browser, type Page } from '@playwright/test'
import { Secret, TOTP } from 'otpauth'
import { startServer } from './ownServer'
import { row } from './scriptSupport'
import { errorsOf, open, ready, signIn } from './support'

const PASSWORD = 'a long enough password'
const codeAt = (secret: string, timestamp: number) =>
  new TOTP({ secret: Secret.fromBase32(secret), digits: 6, period: 30 }).generate({ timestamp })

async function fill(page: Page, fields: Record<string, string>) {
  for (const [label, value] of Object.entries(fields))
    await page.getByLabel(label, { exact: true }).fill(value)
}
async function enter(page: Page, fields: Record<string, string>) {
  await open(page, '/sign-in')
  await fill(page, fields)
  await page.getByRole('button', { name: 'Sign in' }).click()
}
const isHome = (page: Page) => expect(page.getByRole('heading', { name: 'Forms', exact: true })).toBeVisible()
const newPage = async (browser: Browser) => (await browser.newContext()).newPage()

/** Invites somebody by the screens; gives the link that was posted. */
async function invite(page: Page, name: string, email: string): Promise<string> {
  await open(page, '/people')
  await page.getByRole('button', { name: 'Invite somebody…' }).click()
  await fill(page, { Name: name, 'E-mail': email })
  await page.getByRole('button', { name: 'Invite', exact: true }).click()
  const link = page.getByText(/\/key\//)
  await expect(link).toBeVisible()
  return (await link.textContent()) ?? ''
}

/** The admin's page, hers, and what is known of her. */
interface Story {
  page: Page
  mara: Page
  browser: Browser
  email: string
  name: string
}

/** A form is shared with her: she may look, and change nothing. */
async function shareToLook({ page, mara, email }: Story) {
  await open(page, '/')
  // Other tests have made more forms than stand on one page.
  await page.getByLabel('Find a form').fill('Slipway incident report')
  await page.getByRole('button', { name: 'More for Slipway incident report' }).first().click()
  await page.getByText('Share…').click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Add a person or a team').fill('Mara')
  await page.getByRole('option', { name: new RegExp(email) }).click()
  await expect(dialog.getByText(email)).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await open(mara, '/')
  await expect(mara.getByText('you may look')).toBeVisible()
  await mara.getByRole('link', { name: 'Slipway incident report' }).click()
  const script = mara.getByRole('region', { name: 'Script' })
  await expect(script).toBeVisible()
  await row(mara, 'happened_on').locator('.label').click()
  await expect(mara.getByRole('textbox', { name: 'Label' })).toBeDisabled()
  await expect(mara.getByRole('button', { name: /^Add/ })).toHaveCount(0)
  await row(mara, 'where_at').focus()
  await mara.keyboard.press('Delete')
  await expect(mara.getByText('You may look at this form, not change it.').first()).toBeVisible()
}

/** She sets a second factor, signs in with it elsewhere, and signs that browser out. */
async function setSecondFactor({ mara, browser, email }: Story) {
  await open(mara, '/account')
  await fill(mara, { 'Your password': PASSWORD })
  await mara.getByRole('button', { name: 'Set a second factor' }).click()
  const secret = (await mara.locator('code.secret').textContent()) ?? ''
  await fill(mara, { 'The code that it shows': codeAt(secret, Date.now() - 30_000) })
  await mara.getByRole('button', { name: 'Let it count' }).click()
  await expect(mara.getByRole('button', { name: 'Take the second factor away' })).toBeVisible()
  const elsewhere = await newPage(browser)
  await enter(elsewhere, { 'E-mail': email, Password: PASSWORD })
  await fill(elsewhere, { Code: codeAt(secret, Date.now()) })
  await elsewhere.getByRole('button', { name: 'Sign in' }).click()
  await isHome(elsewhere)
  await open(mara, '/account')
  await mara.getByRole('button', { name: /^Sign out Chromium/ }).click()
  await expect(mara.getByRole('button', { name: /^Sign out Chromium/ })).toHaveCount(0)
  await elsewhere.goto('/')
  await expect(elsewhere.getByRole('heading', { name: 'Sign in' })).toBeVisible()
}

/** She forgets her password: the post brings a link, and her browsers are signed out. */
async function forgetPassword({ page, mara, browser, email }: Story) {
  const lost = await newPage(browser)
  await open(lost, '/forgotten')
  await fill(lost, { 'E-mail': email })
  await lost.getByRole('button', { name: 'Post me a link' }).click()
  await expect(lost.getByText('the link is on its way')).toBeVisible()
  await open(page, '/people?view=post')
  const letter = page.getByRole('article').filter({ hasText: email }).first()
  const reset = (await letter.getByRole('link').getAttribute('href')) ?? ''
  await open(lost, reset)
  await fill(lost, { 'New password': `${PASSWORD} 2` })
  await lost.getByRole('button', { name: 'Go on' }).click()
  await expect(lost.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await mara.goto('/')
  await expect(mara.getByRole('heading', { name: 'Sign in' })).toBeVisible()
}

/** An admin takes the factor away, suspends her, and reads the record. */
async function suspend({ page, mara, email, name }: Story) {
  await open(page, '/people')
  const row = page.getByRole('row').filter({ hasText: email })
  await row.getByRole('button', { name: `Change ${name}` }).click()
  await page.getByRole('button', { name: 'Take the second factor away' }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await enter(mara, { 'E-mail': email, Password: `${PASSWORD} 2` })
  await isHome(mara)
  await row.getByRole('button', { name: `Change ${name}` }).click()
  await page.getByRole('button', { name: 'Suspend' }).click()
  await expect(row).toContainText('suspended')
  await mara.reload()
  await expect(mara.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await enter(mara, { 'E-mail': email, Password: `${PASSWORD} 2` })
  await expect(mara.getByText('E-mail and password don’t fit together.')).toBeVisible()
  await page.getByRole('tab', { name: 'Record' }).click()
  const record = page.getByRole('region', { name: 'Record' })
  await record.getByLabel('Find in the record').fill(name)
  for (const act of ['suspended', 'second factor set', 'password reset', 'joined', 'rights changed'])
    await expect(record.getByText(act, { exact: true }).first()).toBeVisible()
}

test('somebody is invited, sees a form, sets a second factor, forgets the password, and is suspended', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  const [name, email] = ['Mara Tull', `mara-${Date.now()}@wherry.example`]
  await signIn(page)
  const link = await invite(page, name, email)
  const mara = await newPage(browser)
  const story = { page, mara, browser, email, name }
  await test.step('she chooses her password and is in; the link opens nothing more', async () => {
    await open(mara, link)
    await expect(mara.getByText(`You sign in as ${email}.`)).toBeVisible()
    await fill(mara, { 'New password': PASSWORD })
    await mara.getByRole('button', { name: 'Go on' }).click()
    await isHome(mara)
    await mara.goto(link)
    await expect(mara.getByRole('heading', { name: 'This link opens nothing any more.' })).toBeVisible()
  })
  await test.step('she may look', () => shareToLook(story))
  await test.step('second factor', () => setSecondFactor(story))
  await test.step('forgotten password', () => forgetPassword(story))
  await test.step('suspended', () => suspend(story))
  expect(errors).toEqual([])
})

test('a team is put together, and a turn that waits for it stands on its people’s first page', async ({
  page,
  browser,
}) => {
  const team = `Lift crew ${Date.now()}`
  await signIn(page)
  await open(page, '/people?view=teams')
  await page.getByRole('button', { name: 'New team…' }).click()
  await fill(page, { Name: team })
  await page.getByLabel('Who is in it').fill('Bram')
  await page.getByRole('option', { name: 'Bram Hoyle' }).click()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.locator('.team').filter({ hasText: team })).toContainText('Bram Hoyle')
  const bram = await newPage(browser)
  await enter(bram, { 'E-mail': 'lift@wherry.example', Password: 'wherry-reach' })
  await isHome(bram)
  const turn = bram.getByRole('link', { name: /Yard office · Haul-out/ }).first()
  await expect(turn).toBeVisible()
  const [opened] = await Promise.all([bram.waitForEvent('popup'), turn.click()])
  await ready(opened)
  await expect(opened.getByText('Yard office').first()).toBeVisible()
  await expect(bram.getByRole('button', { name: 'New form' })).toHaveCount(0)
})

test('an empty workspace is set up with the code that the server prints', async ({ page }) => {
  const server = await startServer()
  try {
    await open(page, `${server.url}/`)
    await expect(page.getByRole('heading', { name: 'Set up' })).toBeVisible()
    const code = /code:\s+(\S+)/.exec(server.printed())?.[1] ?? ''
    expect(code).toMatch(/^(?:[A-Z2-9]{4}-){2}[A-Z2-9]{4}$/)
    await fill(page, {
      'Code that the server printed': 'AAAA-AAAA-AAAA',
      'Your name': 'Ines Marlow',
      'E-mail': 'ines@wherry.example',
      Password: PASSWORD,
    })
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByText('This is not the code that the server printed last.')).toBeVisible()
    await fill(page, { 'Code that the server printed': code.toLowerCase().replaceAll('-', ' ') })
    await page.getByRole('button', { name: 'Begin' }).click()
    await isHome(page)
    await expect(page.getByText('No forms yet')).toBeVisible()
    await page.goto(`${server.url}/set-up`)
    await isHome(page)
  } finally {
    await server.end()
  }
})
