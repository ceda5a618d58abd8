import { expect, test, type Page } from '@playwright/test'
import type { Form, Item } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { draftOf, newForm, saved } from './scriptSupport'
import { errorsOf, open, responsesOf, signIn } from './support'
import { handOn, linksOf, newPage } from './turnsSupport'

const text = (code: string, label: string): Item => ({
  ...{ kind: 'question', type: 'text', code, label, required: true },
})
/** A wedding: what the couple orders, cook and florist prepare, and the planner puts together. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'wedding', title: 'Wedding' },
  sections: [
    { code: 'order', title: 'The day', items: [text('day', 'Which day?')] },
    { code: 'food', title: 'Food', items: [text('menu', 'What is cooked?')] },
    { code: 'flowers', title: 'Flowers', items: [text('bouquet', 'Which flowers?')] },
    { code: 'plan', title: 'Plan', items: [text('plan_note', 'A word to the couple')] },
  ],
  parties: ['Couple', 'Cook', 'Florist', 'Planner'].map(name => ({ code: name.toLowerCase(), name })),
  turns: [
    { code: 'asks', party: 'couple', by: 'link', access: { order: 'fills' } },
    { code: 'cooks', party: 'cook', by: 'link', access: { order: 'reads', food: 'fills' } },
    {
      ...{ code: 'binds', party: 'florist', by: 'link' },
      access: { order: 'reads', food: 'reads', flowers: 'fills' },
    },
    {
      ...{ code: 'plans', party: 'planner', by: 'link' },
      access: { order: 'reads', food: 'reads', flowers: 'reads', plan: 'fills' },
    },
  ],
}

/** Opens the florist’s turn with the cook’s; the prover says that it reads what that fills, until it no longer does. */
async function openTogether(page: Page, id: string) {
  await open(page, `/forms/${id}/write?view=parties`)
  await page.getByRole('radio', { name: /Florist/ }).click()
  await page.getByLabel('open at once with Cook').check()
  await expect(page.getByText('The response goes on as Cook says')).toBeVisible()
  await page.getByRole('radio', { name: /Cook/ }).click()
  await expect(page.getByText('From Cook and Florist on to Planner')).toBeVisible()
  await expect(page.getByText('Fills Food; reads The day; never sees Flowers and Plan.')).toBeVisible()
  await saved(page)
  await open(page, `/forms/${id}/prove`)
  await expect(page.getByText('“Florist” reads “What is cooked?”, which “Cook” fills.').first()).toBeVisible()
  await open(page, `/forms/${id}/write?view=parties`)
  await page.getByRole('cell', { name: 'Florist, Food: reads' }).focus()
  await page.keyboard.press('n')
  await expect(page.getByRole('cell', { name: 'Florist, Food: never sees' })).toBeVisible()
  await saved(page)
  expect((await draftOf(page, id)).turns?.[2]).toMatchObject({
    alongside: 'cooks',
    access: { order: 'reads' },
  })
}

/** In the rehearsal both can be taken in any order, and the next waits for both. */
async function rehearse(page: Page, id: string) {
  await open(page, `/forms/${id}/rehearse`)
  const frame = page.getByRole('group', { name: 'Frame 1' })
  await frame.getByLabel('Which day?').fill('Saturday')
  await frame.getByRole('button', { name: 'Check your answers' }).click()
  await frame.getByRole('button', { name: 'Hand on' }).click()
  await expect(frame.getByRole('heading', { name: 'Handed on to Cook and Florist' })).toBeVisible()
  await frame.getByRole('button', { name: 'Take the turn of Florist' }).click()
  await frame.getByRole('button', { name: /^Next/ }).click()
  await frame.getByLabel('Which flowers?').fill('Asters')
  await frame.getByRole('button', { name: 'Check your answers' }).click()
  await frame.getByRole('button', { name: 'Hand on' }).click()
  await expect(frame.getByRole('heading', { name: 'Handed on; it waits for Cook' })).toBeVisible()
}

test('two parties have a response open at once, and the next waits for both', async ({ page, browser }) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await test.step('written and proved', () => openTogether(page, id))
  await test.step('rehearsed', () => rehearse(page, id))
  const token = await releaseForm(page, id)
  const [couple, cook, florist] = [await newPage(browser), await newPage(browser), await newPage(browser)]
  await open(couple, `/f/${token}`)
  await handOn(couple, 'Which day?', 'Saturday')
  await expect(couple.getByRole('heading', { name: 'Handed on to Cook' })).toBeVisible()
  const links = await linksOf(page, id)
  expect([...links.keys()].sort()).toEqual(['Cook', 'Florist'])
  await open(cook, links.get('Cook') ?? '')
  await open(florist, links.get('Florist') ?? '')
  await cook.getByLabel('What is cooked?').fill('Trout')
  await handOn(florist, 'Which flowers?', 'Asters')
  await expect(florist.getByRole('heading', { name: 'Handed on to Cook' })).toBeVisible()
  // What the cook had typed meanwhile is still there.
  await expect(cook.getByLabel('What is cooked?')).toHaveValue('Trout')
  await handOn(cook, 'What is cooked?', 'Trout and leek')
  await expect(cook.getByRole('heading', { name: 'Handed on to Planner' })).toBeVisible()
  expect([...(await linksOf(page, id)).keys()]).toEqual(['Planner'])
  expect((await responsesOf(page, id)).rows[0]).toMatchObject({
    turn: 'Planner',
    cells: { day: 'Saturday', menu: 'Trout and leek', bouquet: 'Asters' },
  })
  expect(errors).toEqual([])
})
