import { expect, type Locator, type Page } from '@playwright/test'
import { releaseForm } from '../support/release'

/** Waits until the page's script runs: a click before that is lost. */
export const ready = (page: Page) =>
  page.waitForFunction(() => Reflect.get(window, 'useNuxtApp')?.().isHydrating === false)

export async function open(page: Page, address: string) {
  await page.goto(address)
  await ready(page)
}

export async function signIn(page: Page) {
  await open(page, '/sign-in')
  await page.getByLabel('E-mail').fill('ines@wherry.example')
  await page.getByLabel('Password').fill('wherry-reach')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Forms' })).toBeVisible()
}

/** Opens a form from home as people do where there are many: by its name. */
export async function openForm(page: Page, title: string) {
  await page.getByLabel('Find a form').fill(title)
  await page.getByRole('link', { name: title, exact: true }).first().click()
}

/** Errors that a page reports itself; a journey ends with none. */
export function errorsOf(page: Page): string[] {
  const errors: string[] = []
  page.on('pageerror', error => errors.push(error.message))
  page.on(
    'console',
    message =>
      message.type() === 'error' &&
      !message.text().includes('Failed to load resource') &&
      errors.push(message.text()),
  )
  return errors
}

/** The newest responses of a form as the table of responses has them. */
export async function responsesOf(
  page: Page,
  form: string,
): Promise<{ rows: { id: string; turn: string | null; cells: Record<string, string> }[] }> {
  const response = await page.request.get(`/api/forms/${form}/responses`)
  expect(response.status()).toBe(200)
  return response.json()
}

/** A new private link to a turn that is open. */
export async function linkTo(page: Page, turnId: string): Promise<string> {
  const made = await page.request.post(`/api/turns/${turnId}/acts`, { data: { do: 'make link' } })
  expect(made.status(), await made.text()).toBe(200)
  return (await made.json()).link
}

/** Chooses in a field that unfolds. */
export async function choose(within: Page | Locator, field: string, option: string | RegExp) {
  const input = within.getByLabel(field, { exact: true })
  await input.press('ArrowDown')
  const page = 'keyboard' in within ? within : within.page()
  await page.getByRole('option', { name: option, exact: typeof option === 'string' }).click()
}

/** Gives files to a dialog that a button opens. */
export async function giveFiles(page: Page, button: string, files: Parameters<Locator['setInputFiles']>[0]) {
  const dialog = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: button }).click()
  await (await dialog).setFiles(files)
}

/** Brings a definition in and releases it; gives the address for respondents. */
export async function released(page: Page, form: unknown): Promise<string> {
  await signIn(page)
  const { id } = await (await page.request.post('/api/forms', { data: { definition: form } })).json()
  return `/f/${await releaseForm(page, id)}`
}
