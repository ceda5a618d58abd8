import { expect, test } from '@playwright/test'
import type { Form, Item } from '../../core/form/definition'
import { newForm } from './scriptSupport'
import { choose, errorsOf, open, signIn } from './support'

const text = (code: string, label: string): Item => ({
  kind: 'question',
  type: 'text',
  code,
  label,
  required: true,
})
/** A bakery's order: the customer asks, the baker answers, and large ones go to the owner too. */
const FORM: Form = {
  tobbin: 2,
  code: 'cake_order',
  title: 'Cake order',
  sections: [
    {
      code: 'ask',
      title: 'Your cake',
      items: [
        text('cake', 'Which cake?'),
        {
          kind: 'question',
          type: 'integer',
          code: 'guests',
          label: 'For how many?',
          required: true,
        },
      ],
    },
    { code: 'bake', title: 'Baking', items: [text('oven', 'Which oven?')] },
    { code: 'agree', title: 'Agreement', items: [text('word', 'A word about it')] },
  ],
  parties: [
    { code: 'customer', name: 'Customer' },
    { code: 'baker', name: 'Baker' },
    { code: 'owner', name: 'Owner' },
  ],
  turns: [
    { code: 'order', party: 'customer', by: 'link', access: { ask: 'fills' } },
    {
      code: 'bakes',
      party: 'baker',
      by: 'link',
      access: { ask: 'reads', bake: 'fills' },
      handOff: [{ when: 'guests > 50', to: 'agrees' }, { to: 'done' }],
    },
    {
      code: 'agrees',
      party: 'owner',
      by: 'link',
      access: { ask: 'reads', agree: 'fills' },
    },
  ],
}

test('turns are rehearsed by the real rules: handed on, given back, taken again, and done', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await open(page, `/forms/${id}/rehearse`)
  const [first, second] = [1, 2].map(n => page.getByRole('group', { name: `Frame ${n}` }))
  if (!first || !second) throw new Error('There are two frames.')
  await expect(second.getByText('it is the turn of Customer')).toBeVisible()
  await first.getByLabel('Which cake?').fill('Plum')
  await first.getByLabel('For how many?').fill('60')
  // What one party fills is seen by the other at once.
  await expect(second.getByText('Plum')).toBeVisible()
  await first.getByRole('button', { name: 'Check your answers' }).click()
  await first.getByRole('button', { name: 'Hand on' }).click()
  await expect(first.getByRole('heading', { name: 'Handed on to Baker' })).toBeVisible()
  await expect(second.getByText('it is the turn of')).toBeHidden()
  await first.getByRole('button', { name: 'Take the turn of Baker' }).click()
  await first.getByRole('button', { name: /^Next/ }).click()
  await first.getByLabel('Which oven?').fill('Two')
  await first.getByRole('button', { name: 'Check your answers' }).click()
  await first.getByRole('button', { name: 'Give it back to Customer' }).click()
  await first.getByLabel('For how many?').fill('20')
  await first.getByRole('button', { name: 'Check your answers' }).click()
  await first.getByRole('button', { name: 'Hand on' }).click()
  await first.getByRole('button', { name: 'Take the turn of Baker' }).click()
  await first.getByRole('button', { name: /^Next/ }).click()
  await expect(first.getByLabel('Which oven?')).toHaveValue('Two')
  await first.getByRole('button', { name: 'Check your answers' }).click()
  await first.getByRole('button', { name: 'Hand on' }).click()
  // So few guests don't go to the owner.
  await expect(first.getByRole('heading', { name: 'The response is done' })).toBeVisible()
  await choose(second, 'Rehearse as', 'as Owner')
  await expect(second.getByText('the response is done')).toBeVisible()
  expect(errors).toEqual([])
})
