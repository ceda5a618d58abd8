import { expect, test, type Locator } from '@playwright/test'
import { releaseForm } from '../support/release'
import { draftOf, newForm, row, saved } from './scriptSupport'
import { choose, errorsOf, open, signIn } from './support'

const text = (code: string) => ({ kind: 'question' as const, type: 'text' as const, code, label: code })
const FORM = {
  tobbin: 2 as const,
  code: 'visit',
  title: 'House visit',
  sections: [
    {
      code: 's',
      title: 'Where',
      items: [
        {
          kind: 'group' as const,
          code: 'address',
          title: 'Address',
          items: ['street', 'number', 'town', 'remarks'].map(text),
        },
      ],
    },
  ],
}
const placeOf = async (field: Locator) => {
  const box = await field.boundingBox()
  if (!box) throw new Error('It is not on the page.')
  return box
}

test('a group lays its questions side by side where there is room, and one may take more of it', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await row(page, 'address').locator('.label').click()
  await page.getByRole('button', { name: /^More: / }).click()
  await choose(page, 'How its questions stand', '2 side by side')
  await row(page, 'address').locator('.label').click()
  await row(page, 'remarks').locator('.label').click()
  await page.getByRole('button', { name: /^More: / }).click()
  await choose(page, 'How many columns it takes', 'the whole width')
  await page.getByLabel('indented, as a follow-up').check()
  await saved(page)
  expect(JSON.stringify(await draftOf(page, id))).toContain('"columns":2')
  const address = `/f/${await releaseForm(page, id)}`
  const guest = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  const guestErrors = errorsOf(guest)
  await open(guest, address)
  const at = (code: string) => placeOf(guest.getByLabel(code, { exact: false }).first())
  const [street, number, town, remarks] = [
    await at('street'),
    await at('number'),
    await at('town'),
    await at('remarks'),
  ]
  expect(number.y).toBe(street.y)
  expect(number.x).toBeGreaterThan(street.x + street.width)
  expect(town.x).toBe(street.x)
  expect(town.y).toBeGreaterThan(street.y + street.height)
  expect(remarks.y).toBeGreaterThan(town.y + town.height)
  expect(remarks.width).toBeGreaterThan(town.width * 1.5)
  expect(remarks.x).toBeGreaterThan(town.x)
  await guest.setViewportSize({ width: 360, height: 740 })
  const [first, second] = [await at('street'), await at('number')]
  expect(second.x).toBe(first.x)
  expect(second.y).toBeGreaterThan(first.y + first.height)
  const width = await guest.evaluate(() => document.documentElement.scrollWidth)
  expect(width).toBeLessThanOrEqual(360)
  expect([...errors, ...guestErrors]).toEqual([])
})

test('a long text is as high as it says, and a scale has a word in its middle', async ({ page }) => {
  await signIn(page)
  const long = (code: string, more: object) => ({ ...text(code), type: 'longText' as const, ...more })
  const scale = { ...text('mood'), type: 'scale' as const, min: 1, max: 5, low: 'poor', middle: 'so-so' }
  const items = [long('short', { lines: 2 }), long('tall', { lines: 12 }), scale]
  const section = { code: 's', title: 'S', items }
  const id = await newForm(page, { ...FORM, sections: [section] })
  await row(page, 'mood').locator('.label').click()
  await expect(page.getByLabel('in the middle')).toHaveValue('so-so')
  await open(page, `/f/${await releaseForm(page, id)}`)
  const [short, tall] = [await placeOf(page.getByLabel(/^short/)), await placeOf(page.getByLabel(/^tall/))]
  expect(tall.height).toBeGreaterThan(short.height * 3)
  await expect(page.getByRole('radio', { name: '3, so-so' })).toBeAttached()
  await expect(page.getByText('so-so', { exact: true })).toBeVisible()
})
