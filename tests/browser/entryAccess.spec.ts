import { expect, test } from '@playwright/test'
import type { Form, Item } from '../../core/form/definition'
import { releaseForm } from '../support/release'
import { draftOf, newForm, saved } from './scriptSupport'
import { errorsOf, open, signIn } from './support'
import { handOn, linksOf, newPage } from './turnsSupport'

const dishes: Item = {
  ...{ kind: 'group', code: 'dishes', title: 'Dishes', repeat: { min: 1, max: 5, heading: '{{ dish }}' } },
  items: [
    { ...{ kind: 'question', type: 'text', code: 'dish', label: 'Which dish?', required: true } },
    {
      ...{ kind: 'question', type: 'integer', code: 'cost', label: 'What does it cost us?', required: true },
    },
    { kind: 'question', type: 'text', code: 'source', label: 'Where is it from?', shownWhen: 'cost > 20' },
  ],
}
/** A tasting: the cook says what is served and what it costs; the guest is not to see the cost. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'tasting', title: 'Tasting' },
  sections: [
    { code: 'menu', title: 'Menu', items: [dishes] },
    {
      ...{ code: 'verdict', title: 'Verdict' },
      items: [{ kind: 'question', type: 'text', code: 'best', label: 'Which was best?', required: true }],
    },
  ],
  parties: ['Cook', 'Guest'].map(name => ({ code: name.toLowerCase(), name })),
  turns: [
    { code: 'serves', party: 'cook', by: 'link', access: { menu: 'fills' } },
    { code: 'tastes', party: 'guest', by: 'link', access: { menu: 'reads', verdict: 'fills' } },
  ],
}

test('a turn reads entries without a question in them, and what rests on that question still shows', async ({
  page,
  browser,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await open(page, `/forms/${id}/write?view=parties`)
  await page.getByRole('button', { name: 'Questions of Menu' }).click()
  const cell = (does: string) =>
    page.getByRole('cell', { name: `Guest, What does it cost us?: ${does}`, exact: true })
  await cell('reads').focus()
  await page.keyboard.press('Space')
  await expect(cell('never sees')).toBeVisible()
  await expect(page.getByRole('cell', { name: 'Guest, Dishes: reads' })).toBeVisible()
  await saved(page)
  expect((await draftOf(page, id)).turns?.[1]?.access).toEqual({
    ...{ menu: 'reads', verdict: 'fills', cost: 'never' },
  })
  const token = await releaseForm(page, id)
  const [cook, guest] = [await newPage(browser), await newPage(browser)]
  await open(cook, `/f/${token}`)
  await cook.getByLabel('Which dish?').fill('Trout')
  await cook.getByLabel('What does it cost us?').fill('4711')
  await cook.getByLabel('Where is it from?').fill('The mill pond')
  await cook.getByRole('button', { name: '+ Add to Dishes' }).click()
  await cook.getByLabel('Which dish?').last().fill('Leek')
  await handOn(cook, 'What does it cost us?', '7')
  await open(guest, (await linksOf(page, id)).get('Guest') ?? '')
  await guest.getByRole('button', { name: 'Back', exact: true }).click()
  await expect(guest.getByText('Trout').first()).toBeVisible()
  await expect(guest.getByText('The mill pond')).toBeVisible()
  await expect(guest.getByText('Where is it from?')).toHaveCount(1)
  expect(await guest.content()).not.toContain('4711')
  expect(await guest.content()).not.toContain('cost')
  await guest.getByRole('button', { name: /^Next/ }).click()
  await handOn(guest, 'Which was best?', 'Leek')
  await expect(guest.getByRole('heading', { name: /Thank you|Done|Sent/ }).first()).toBeVisible()
  expect(errors).toEqual([])
})
