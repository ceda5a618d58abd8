import { expect, type Page } from '@playwright/test'
import { open } from './support'
import type { Form } from '../../core/form/definition'

export async function newForm(page: Page, definition: Form): Promise<string> {
  const { id } = await (await page.request.post('/api/forms', { data: { definition } })).json()
  await open(page, `/forms/${id}/write`)
  await expect(page.getByRole('region', { name: 'Script' })).toBeVisible()
  return id
}
export const saved = (page: Page) => expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible()
export const draftOf = async (page: Page, id: string): Promise<Form> =>
  (await (await page.request.get(`/api/forms/${id}`)).json()).draft
export const yesNo = (code: string, more: object = {}) => ({
  kind: 'question' as const,
  code,
  type: 'yesNo' as const,
  label: code,
  ...more,
})
export const row = (page: Page, code: string) => page.locator(`[data-address="item/${code}"]`)
export const pasteInto = (page: Page, text: string) =>
  page.locator(':focus').evaluate((element, pasted) => {
    const data = new DataTransfer()
    data.setData('text/plain', pasted)
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  }, text)
