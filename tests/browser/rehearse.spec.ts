import { expect, test } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { newForm } from './scriptSupport'
import { choose, errorsOf, open, signIn } from './support'

const FORM: Form = {
  tobbin: 2,
  code: 'kiln',
  title: 'Kiln firing',
  parties: [
    { code: 'potter', name: 'Potter' },
    { code: 'studio', name: 'Studio', office: true },
  ],
  sections: [
    {
      code: 'pots',
      title: 'Your pots',
      items: [
        { kind: 'question', type: 'integer', code: 'pieces', label: 'Pieces', required: true },
        { kind: 'question', type: 'text', code: 'shelf', label: 'Which shelf?', shownWhen: 'pieces > 10' },
      ],
    },
    {
      code: 'firing',
      title: 'Firing',
      shownWhen: 'pieces > 2',
      items: [{ kind: 'question', type: 'integer', code: 'heat', label: 'Heat' }],
    },
  ],
  turns: [
    { code: 'brings', party: 'potter', by: 'link', access: { pots: 'fills' } },
    {
      code: 'fires',
      party: 'studio',
      by: { team: ['studio@wherry.example'] },
      access: { pots: 'reads', firing: 'fills' },
    },
  ],
}

test('parties side by side with the same answers, the walk so far, and why something is not on it', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const id = await newForm(page, FORM)
  await open(page, `/forms/${id}/rehearse`)
  const first = page.getByRole('group', { name: 'Frame 1' })
  const second = page.getByRole('group', { name: 'Frame 2' })
  const walk = page.getByRole('complementary', { name: 'The walk so far' })
  // Too few pieces: no firing, and the side says why.
  await first.getByLabel('Pieces').fill('2')
  await expect(second).toContainText(/Pieces\s*2/)
  await walk.getByRole('button', { name: 'Why not 2 Firing?' }).click()
  await expect(walk.getByRole('group', { name: 'Why: Firing' })).toContainText('you answered 2 in 1.1')
  await first.getByLabel('Pieces').fill('12')
  await expect(walk.getByRole('group', { name: 'Why: Firing' })).toContainText('Why is this shown?')
  await expect(first.getByLabel('Which shelf?')).toBeVisible()
  // A section gone to at the side is gone to in every frame that has it.
  await walk.getByRole('button', { name: '2 Firing' }).click()
  await second.getByLabel('Heat').fill('1040')
  await expect(walk).toContainText(/Heat\s*1040/)
  // A frame more, as another party, wider; kept over a reload.
  await page.getByRole('button', { name: 'Add a frame' }).click()
  const third = page.getByRole('group', { name: 'Frame 3' })
  await expect(third.getByLabel('Heat')).toHaveValue('1040')
  await choose(third, 'Rehearse as', 'as Potter')
  await third.getByRole('radio', { name: 'desk' }).click()
  await page.reload()
  await expect(third.getByLabel('Pieces')).toHaveValue('12')
  await expect(third.getByRole('radio', { name: 'desk' })).toBeChecked()
  await page.getByRole('button', { name: 'Close frame 3' }).click()
  await expect(third).toHaveCount(0)
  await page.keyboard.press('Alt+n')
  await expect(first.getByLabel('Pieces')).toHaveValue('')
  expect(errors).toEqual([])
})
