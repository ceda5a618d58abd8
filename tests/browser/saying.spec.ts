import { expect, test } from '@playwright/test'
import type { Form } from '../../core/form/definition'
import { errorsOf, open, openForm, released, responsesOf, signIn } from './support'

const FORM: Form = {
  tobbin: 2,
  code: 'rope_walk',
  title: 'Ropework order',
  look: { accent: '#9c3d10', corner: 8 },
  lists: [{ code: 'unpaid', rows: [{ code: 'late@tar.example', label: 'Late payer' }] }],
  sections: [
    {
      code: 'wish',
      title: 'What you wish for',
      items: [
        { kind: 'note', code: 'hello', text: 'An order at {{ workspace.name }}.' },
        {
          kind: 'question',
          type: 'email',
          code: 'mail',
          label: 'Your e-mail',
          required: true,
          table: { list: 'unpaid', takes: 'others', message: 'Please call the office first.' },
        },
        {
          kind: 'question',
          type: 'choices',
          code: 'fibres',
          label: 'Fibres',
          writeIn: 'Another',
          writeIns: 2,
          options: [{ code: 'hemp', label: 'Hemp' }],
        },
        {
          kind: 'question',
          type: 'scale',
          code: 'tight',
          label: 'How tight was the last one?',
          min: 1,
          max: 5,
          notApplicable: 'I had none',
          required: true,
        },
        { kind: 'question', type: 'longText', code: 'story', label: 'Anything else', rich: true },
      ],
    },
  ],
  closings: [
    { code: 'done', title: 'Thank you', text: 'Order {{ response.number }} at {{ workspace.name }}.' },
  ],
}

test('what is looked up, left out, written in and formatted is sent; texts quote standing values; the look is worn', async ({
  page,
  browser,
}) => {
  const address = await released(page, FORM)
  const context = await browser.newContext()
  const guest = await context.newPage()
  const errors = errorsOf(guest)
  const bodies: string[] = []
  guest.on('response', async response => {
    if (response.url().includes('/f/')) bodies.push(await response.text())
  })
  await open(guest, address)
  await expect(guest.getByText('An order at Wherry Reach Boatyard.')).toBeVisible()
  await expect(guest.getByRole('button', { name: 'Check' })).toHaveCSS('background-color', 'rgb(156, 61, 16)')
  await guest.getByLabel('Your e-mail').fill('Late@tar.example')
  await guest.getByLabel('Another', { exact: true }).check()
  await guest.getByLabel('Another: your own words').fill('Nettle')
  await guest.getByRole('button', { name: '+ another' }).click()
  await guest.keyboard.type('Sisal')
  await expect(guest.getByRole('button', { name: '+ another' })).toHaveCount(0)
  await guest.getByRole('button', { name: 'Check' }).click()
  await expect(guest.getByText('This needs an answer.').first()).toBeVisible()
  await guest.getByLabel('I had none').check()
  await guest.getByRole('textbox', { name: 'Anything else' }).click()
  await guest.keyboard.type('Some ')
  await guest.keyboard.press('Control+b')
  await guest.keyboard.type('strong')
  await guest.getByRole('button', { name: 'Check' }).click()
  await expect(guest.locator('dd strong')).toHaveText('strong')
  await guest.getByRole('button', { name: 'Send' }).click()
  await expect(guest.getByText('Your e-mail: Please call the office first.')).toBeVisible()
  expect(bodies.join('')).not.toContain('late@tar.example')
  expect(bodies.join('')).not.toContain('Late payer')
  await guest.getByRole('button', { name: 'Change' }).first().click()
  await guest.getByLabel('Your e-mail').fill('early@tar.example')
  await guest.getByRole('button', { name: 'Check' }).click()
  await guest.getByRole('button', { name: 'Send' }).click()
  await expect(guest.getByText('Order 1 at Wherry Reach Boatyard.')).toBeVisible()
  expect(errors).toEqual([])
  await context.close()
  const forms: { id: string; title: string }[] = await (await page.request.get('/api/forms')).json()
  const id = forms.find(f => f.title === FORM.title)?.id ?? ''
  const [row] = (await responsesOf(page, id)).rows
  expect(row?.cells).toMatchObject({
    mail: 'early@tar.example',
    fibres: 'Nettle, Sisal',
    tight: 'I had none',
    story: 'Some **strong**',
  })
})

test('a look is written, measured and kept for other forms; the workspace says its name', async ({
  page,
}) => {
  await signIn(page)
  const { look: _, ...plain } = FORM
  await page.request.post('/api/forms', { data: { definition: { ...plain, title: 'Moss order' } } })
  await open(page, '/')
  await openForm(page, 'Moss order')
  await page.getByRole('tab', { name: 'Settings' }).click()
  await page.getByText('Colours, pictures and sizes').click()
  await page.getByLabel('Accent', { exact: true }).fill('#8fd0c4')
  await page.keyboard.press('Tab')
  await expect(page.getByText('hard to read')).toBeVisible()
  await page.getByLabel('Accent', { exact: true }).fill('green')
  await page.keyboard.press('Tab')
  await expect(page.getByText('A colour is written #1f6f78.')).toBeVisible()
  await page.getByLabel('Name of the look').fill('Moss')
  await page.getByRole('button', { name: 'Keep in the workspace' }).click()
  await expect(page.getByText('The look “Moss” is kept')).toBeVisible()
  await page.getByRole('button', { name: 'Take out of the workspace' }).click()
  await expect(page.getByText('The look “Moss” is gone')).toBeVisible()
  await page.getByRole('link', { name: /Prove/ }).click()
  await page
    .getByText(/has a contrast of 1\.\d to 1 with the page/)
    .first()
    .click()
  await page.getByRole('button', { name: /^Mend: Take #/ }).click()
  await expect(page.getByText(/has a contrast of/)).toHaveCount(0)
  await open(page, '/people?view=workspace')
  await page.getByLabel('Address').fill('4 Slip Lane')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('The name and address of the workspace are kept.')).toBeVisible()
})
