import { expect, test } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { newForm } from './scriptSupport'
import { errorsOf, open, ready, signIn } from './support'

const SECTIONS = ['Hive', 'Weather', 'Honey'].map(title => ({
  ...{ code: title.toLowerCase(), title },
  items: [
    {
      ...({ kind: 'question', type: 'text', label: `About the ${title.toLowerCase()}` } as const),
      code: `about_${title.toLowerCase()}`,
    },
  ],
}))
const FORM: Form = { ...{ tobbin: 2, code: 'visit', title: 'Visit' }, sections: SECTIONS }

test('how far people come is counted once for a page, until it is switched off', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  const token = await releaseForm(page, id)
  const stepsNow = async () => {
    const { pages } = await (await page.request.get(`/api/forms/${id}/steps`)).json()
    return pages.map((p: { title: string; reached: number; left: number }) => [p.title, p.reached, p.left])
  }
  const stranger = await (await browser.newContext()).newPage()
  await open(stranger, `/f/${token}`)
  await stranger.getByLabel('About the hive').fill('calm')
  await stranger.getByRole('button', { name: /^Next/ }).click()
  await stranger.getByRole('heading', { name: 'Weather' }).waitFor()
  await stranger.getByRole('button', { name: 'Back', exact: true }).click()
  await stranger.getByRole('button', { name: /^Next/ }).click()
  await expect.poll(stepsNow).toEqual([
    ['Hive', 1, 1],
    ['Weather', 1, 0],
  ])
  // What is gone on with on this device goes on counting where it stopped.
  await stranger.reload()
  await ready(stranger)
  await stranger.getByRole('button', { name: /^Next/ }).click()
  await stranger.getByRole('button', { name: 'Check your answers' }).click()
  await stranger.getByRole('button', { name: 'Send', exact: true }).click()
  await expect.poll(stepsNow).toEqual([
    ['Hive', 1, 1],
    ['Weather', 1, 1],
    ['Honey', 1, 1],
  ])
  await open(page, `/forms/${id}/collect`)
  await page.getByText('Question by question').click()
  const figure = page.getByRole('article', { name: 'Where people stop' })
  await expect(figure).toContainText('1 began version 1')
  await figure.getByRole('button', { name: 'As a table' }).click()
  await expect(figure.getByRole('row', { name: /Weather/ })).toContainText('1')
  await open(page, `/forms/${id}/release`)
  await page.getByText('Opening and closing, limit, corrections, words').click()
  await page.getByLabel(/^Count how far people come/).uncheck()
  await page.getByRole('region', { name: 'Opening' }).getByRole('button', { name: 'Save' }).first().click()
  await expect(page.getByText('✓ In force').first()).toBeVisible()
  const later = await (await browser.newContext()).newPage()
  const told: string[] = []
  later.on('request', request => told.push(request.url()))
  await open(later, `/f/${token}`)
  await later.getByRole('button', { name: /^Next/ }).click()
  await later.getByRole('heading', { name: 'Weather' }).waitFor()
  expect(told.filter(url => url.endsWith('/steps'))).toEqual([])
  expect((await stepsNow())[0]).toEqual(['Hive', 1, 1])
  expect(errors).toEqual([])
})
