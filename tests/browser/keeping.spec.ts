import { expect, test, type Page } from '@playwright/test'
import { errorsOf, open, released } from './support'

const question = (code: string, type: string, more: object = {}) => ({
  kind: 'question',
  code,
  type,
  label: code,
  ...more,
})
const options = (...codes: string[]) => codes.map(code => ({ code, label: `The ${code}` }))
const form = (items: object[], more: object = {}) => ({
  tobbin: 2,
  code: 'keeping',
  title: 'Keeping',
  sections: [{ code: 's', title: 'Everything', items }],
  ...more,
})
const button = (page: Page, name: string) => page.getByRole('button', { name, exact: true })

test('entries and rankings keep the focus, and what is removed can be taken back', async ({ page }) => {
  const errors = errorsOf(page)
  const people = {
    kind: 'group',
    code: 'people',
    title: 'Person',
    repeat: { min: 0, max: 9, heading: '{{ name }}, {{ role }}' },
    items: [question('name', 'text'), question('role', 'text')],
  }
  await open(
    page,
    await released(
      page,
      form([people, question('order', 'ranking', { options: options('oar', 'sail', 'engine') })]),
    ),
  )
  for (const name of ['Ines', 'Piet', '']) {
    await button(page, '+ Add to Person').click()
    await page.keyboard.type(name)
  }
  // A heading whose quotes are all blank is none.
  await expect(page.getByRole('group', { name: 'Person 3' })).toBeVisible()
  await button(page, 'Move Piet, up').focus()
  await page.keyboard.press('Enter')
  await expect(button(page, 'Move Piet, down')).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(button(page, 'Move Piet, down')).toBeFocused()
  await button(page, 'Remove Piet,').click()
  await expect(page.getByRole('group', { name: 'Piet,' })).toBeHidden()
  await expect(button(page, 'Undo')).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('group', { name: 'Piet,' })).toBeVisible()
  await expect(button(page, 'Remove Piet,')).toBeFocused()

  await button(page, 'The oar').focus()
  await page.keyboard.press('Enter')
  await expect(button(page, 'The sail')).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(button(page, 'The engine')).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-code="engine"]')).toBeFocused()
  await button(page, 'Take The sail out of the order').click()
  await expect(button(page, 'The sail')).toBeFocused()
  expect(errors).toEqual([])
})

test('a file that was removed comes back; how many choices are wanted is said; long words stay on a narrow page', async ({
  page,
}) => {
  const errors = errorsOf(page)
  const long = 'Wherry'.repeat(14)
  await page.setViewportSize({ width: 360, height: 720 })
  const types = ['text', 'integer', 'date', 'yesNo', 'scale', 'file']
  await open(
    page,
    await released(
      page,
      form([
        { kind: 'note', code: 'note', text: long },
        ...types.map(type =>
          question(type.toLowerCase(), type, {
            label: long,
            help: long,
            ...(type === 'scale' ? { min: 1, max: 5 } : {}),
          }),
        ),
        question('two', 'choices', {
          label: long,
          most: 2,
          options: [{ code: 'a', label: long }, ...options('b', 'c')],
        }),
        question('ranked', 'ranking', {
          label: 'Ranked',
          options: [{ code: 'a', label: long }, ...options('b')],
        }),
        question('listed', 'choice', {
          label: 'Listed',
          display: 'dropDown',
          options: [{ code: 'a', label: long }, ...options('b')],
        }),
      ]),
    ),
  )
  await expect(page.getByText('Choose at most 2.')).toBeVisible()
  await button(page, long).click()
  const width = () => page.evaluate(() => document.documentElement.scrollWidth)
  await expect.poll(width).toBeLessThanOrEqual(360)

  const file = { name: 'plan.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4 a plan') }
  await page.locator('input[type=file]').setInputFiles(file)
  await button(page, 'Remove plan.pdf').click()
  await expect(button(page, 'Undo')).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(button(page, 'Remove plan.pdf')).toBeFocused()
  expect(errors).toEqual([])
})

test('what is said after sending can be read: going on waits, and can be stopped', async ({ page }) => {
  await page.clock.install()
  const closings = [
    { code: 'thanks', title: 'Thank you', text: 'Bring your papers.', forward: '/f/elsewhere' },
  ]
  const address = await released(page, form([question('name', 'text')], { closings }))
  const send = async () => {
    await open(page, address)
    await button(page, 'Check your answers').click()
    await button(page, 'Send').click()
    await expect(page.getByText('Bring your papers.')).toBeVisible()
  }
  await send()
  await button(page, 'Stay here').click()
  await page.clock.runFor(60_000)
  await expect(page.getByText('Bring your papers.')).toBeVisible()
  await expect(page.getByRole('timer')).toBeHidden()
  await page.getByRole('link', { name: 'Go on' }).click()
  await expect(page).toHaveURL(/elsewhere/)
  await send()
  await expect(page.getByRole('timer')).toBeVisible()
  await page.clock.runFor(13_000)
  await expect(page).toHaveURL(/elsewhere/)
})

test('a searched list never shows a code: what is no longer on offer keeps its words', async ({ page }) => {
  const depots = {
    code: 'depots',
    title: 'Depots',
    columns: [{ code: 'coast', label: 'Coast', type: 'text' }],
    rows: [
      { code: 'd_01', label: 'Weir depot', coast: 'north' },
      { code: 'd_02', label: 'Quay depot', coast: 'south' },
    ],
  }
  await open(
    page,
    await released(
      page,
      form(
        [
          question('coast', 'choice', { options: options('north', 'south'), required: true }),
          question('depot', 'choice', {
            list: 'depots',
            display: 'search',
            narrowedBy: 'row.coast = coast',
          }),
        ],
        { lists: [depots] },
      ),
    ),
  )
  await page.getByText('The north').click()
  const field = page.getByRole('combobox', { name: 'depot' })
  await field.click()
  await page.getByRole('option', { name: 'Weir depot' }).click()
  await page.getByText('The south').click()
  await expect(page.getByText('“Weir depot” is no longer on offer')).toBeVisible()
  await expect(page.getByText('d_01')).toHaveCount(0)
})
