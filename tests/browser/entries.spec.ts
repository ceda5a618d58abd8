import { expect, test, type Page } from '@playwright/test'
import { draftOf } from './scriptSupport'
import { choose, errorsOf, open, ready, responsesOf, signIn } from './support'

const question = (code: string, label: string, more: object = {}) => ({
  kind: 'question',
  type: 'text',
  code,
  label,
  ...more,
})
const yard = {
  tobbin: 2,
  code: 'crew_list',
  title: 'Crew list',
  sections: [
    {
      code: 'trip',
      title: 'The trip',
      items: [
        question('permit', 'Permit number', { pattern: 'WR-[0-9]{4}', required: true }),
        question('seats', 'Places aboard', { type: 'integer', min: 1, max: 12, required: true }),
        {
          kind: 'group',
          code: 'people',
          title: 'Person',
          repeat: { min: 1, max: 12 },
          items: [
            question('name', 'Name', { required: true }),
            question('age', 'Age', { type: 'integer', min: 0, max: 110, required: true }),
            question('carer', 'Who looks after them?', { shownWhen: 'age < 14', required: true }),
          ],
        },
        {
          kind: 'note',
          code: 'odd',
          text: 'Permits of another coast.',
          shownWhen: 'starts with(permit, "XX")',
        },
      ],
    },
    {
      code: 'safety',
      title: 'Safety',
      shownWhen: 'some p in people satisfies p.age < 14',
      items: [
        question('jackets', 'Life jackets for children', {
          type: 'integer',
          min: 0,
          required: true,
          validWhen: [{ rule: 'jackets >= count(people[age < 14])', message: 'One for each child.' }],
        }),
      ],
    },
  ],
  promises: [
    {
      code: 'jackets_kept',
      text: 'There is a life jacket for every child',
      holds: 'count(people[age < 14]) = 0 or jackets >= count(people[age < 14])',
    },
    { code: 'room', text: 'Nobody sails without a place', holds: 'count(people) <= seats' },
  ],
}

async function rehearseWitness(page: Page) {
  // The witness has two people on one place; each entry by its number.
  const finding = page.getByRole('listitem').filter({ hasText: 'Nobody sails without a place' })
  await finding.click()
  const evidence = page.getByRole('complementary', { name: 'Evidence' })
  await expect(evidence.getByText('Person 1')).toBeVisible()
  await expect(evidence.getByText('Person 2')).toBeVisible()
  await expect(evidence.getByText('Person 3')).toBeHidden()
  await expect(
    page.getByRole('listitem').filter({ hasText: '“Permits of another coast.” can never be shown' }),
  ).toBeVisible()
  await expect(page.getByText('0 undecided')).toBeVisible()
  await page.getByRole('button', { name: 'Rehearse these answers' }).click()
  await expect(page.getByRole('region', { name: 'Rehearsal' }).getByLabel('Age')).toHaveCount(2)
  // What the promise names is lit in the script.
  await expect(page.locator('[data-address="item/seats"]')).toHaveClass(/concerned/)
  await expect(page.locator('[data-address="item/permit"]')).not.toHaveClass(/concerned/)
}

async function mendAndRelease(page: Page, id: string) {
  // With a check it is proven, and so is the promise about the jackets.
  await page.request.post(`/api/forms/${id}/edits`, {
    data: {
      base: 0,
      edits: [
        {
          do: 'change',
          what: 'section/trip',
          set: {
            validWhen: [{ rule: 'count(people) <= seats', message: 'There are more people than places.' }],
          },
        },
        { do: 'remove', what: 'item/odd' },
      ],
    },
  })
  await page.goto(`/forms/${id}/prove`)
  await ready(page)
  await page.getByRole('button', { name: /Promises/ }).click()
  await expect(page.getByText('✓ proven')).toHaveCount(2)
  await promiseOfEveryEntry(page, id)
  await page.getByRole('link', { name: /Release/ }).click()
  await page.getByRole('button', { name: 'Release version 1' }).click()
  // The next version is called “Version 1” before it is released, too: the one among the versions is meant.
  const versions = page.getByRole('region', { name: 'Versions', exact: true })
  await expect(versions.getByText('Version 1', { exact: true })).toBeVisible()
}

/** What is to hold in every entry is pointed at, not written. */
async function promiseOfEveryEntry(page: Page, id: string) {
  await page.getByLabel('A new promise').fill('Nobody aboard is over 110')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: '+ it holds when …' }).click()
  await page.getByRole('combobox', { name: 'Question', exact: true }).fill('person')
  await page.keyboard.press('Enter')
  await choose(page, 'Comparison', 'in every entry …')
  const entries = page.getByRole('group', { name: 'Entries of Person' })
  await entries.getByRole('combobox', { name: 'Question', exact: true }).fill('age')
  await page.keyboard.press('Enter')
  await choose(entries, 'Comparison', 'is at most')
  await entries.getByLabel('Value', { exact: true }).fill('110')
  await page.keyboard.press('Tab')
  await expect(page.getByText('✓ proven')).toHaveCount(3)
  const held = async () => (await draftOf(page, id)).promises?.at(-1)?.holds
  await expect.poll(held).toBe('every entry in people satisfies entry.age <= 110')
  // One entry is enough where that is asked.
  await choose(entries, 'In which entries', 'in some entry of')
  await expect.poll(held).toBe('some entry in people satisfies entry.age <= 110')
}

async function meetAsRespondent(page: Page, id: string, errors: string[]) {
  // What was proven is what the respondent meets.
  const {
    releases: [release],
  } = await (await page.request.get(`/api/forms/${id}`)).json()
  await open(page, `/f/${release.token}`)
  await page.getByLabel('Permit number').fill('WR-2026')
  await page.getByLabel('Places aboard').fill('1')
  await page.getByLabel('Name').fill('Lotte Fenn')
  await page.getByLabel('Age').fill('9')
  await page.getByLabel('Who looks after them?').fill('Piet Sorrel')
  await page.getByRole('button', { name: /Add/ }).click()
  await page.getByLabel('Name').last().fill('Piet Sorrel')
  await page.getByLabel('Age').last().fill('44')
  await page.getByRole('button', { name: 'Next' }).click()
  await expect(page.getByText('There are more people than places.').first()).toBeVisible()
  await page.getByLabel('Places aboard').fill('2')
  await page.getByRole('button', { name: 'Next' }).click()
  await page.getByLabel('Life jackets for children').fill('0')
  await page.getByRole('button', { name: /Next|Check/ }).click()
  await expect(page.getByText('One for each child.').first()).toBeVisible()
  await page.getByLabel('Life jackets for children').fill('1')
  await page.getByRole('button', { name: /Next|Check/ }).click()
  await page.getByRole('button', { name: 'Send' }).click()
  await expect(page.getByText(/Thank you|sent/i).first()).toBeVisible()
  const { rows } = await responsesOf(page, id)
  expect(Object.values(rows[0]?.cells ?? {}).join(', ')).toContain('Lotte Fenn')
  expect(errors).toEqual([])
}

test('entries of a repeating group are decided: a promise is broken with its witness, mended, proven, and kept by the responses', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const { id } = await (await page.request.post('/api/forms', { data: { definition: yard } })).json()
  await open(page, `/forms/${id}/prove`)
  await test.step('the witness has two people on one place', () => rehearseWitness(page))
  await test.step('with a check it is proven', () => mendAndRelease(page, id))
  await test.step('what was proven is what the respondent meets', () => meetAsRespondent(page, id, errors))
})

test('what rules ask of entries is told in the script: threads, relations, before it is deleted, and renamed with it', async ({
  page,
}) => {
  const errors = errorsOf(page)
  await signIn(page)
  const { id } = await (
    await page.request.post('/api/forms', { data: { definition: { ...yard, promises: [] } } })
  ).json()
  await open(page, `/forms/${id}/write`)
  const age = page.locator('[data-address="item/age"]')
  const safety = page.locator('[data-address="section/safety"]')
  await age.focus()
  const relations = page.getByRole('group', { name: 'Relations of the selected row' })
  await expect(relations).toContainText('decides about')
  for (const name of ['Safety', 'Life jackets for children', 'Who looks after them?'])
    await expect(relations.getByRole('button', { name })).toBeVisible()
  await expect(age.locator('.strand.gate')).toHaveCount(1)
  await expect(safety.locator('.strand.end')).toHaveCount(1)
  await relations.getByRole('button', { name: 'Safety' }).click()
  await expect(relations).toContainText('depends on')
  await expect(relations.getByRole('button', { name: 'Age' })).toBeVisible()

  // Deleted only when asked to; then its rules are faults, until that is undone.
  await age.focus()
  await page.keyboard.press('Delete')
  const asked = page.getByRole('alertdialog', { name: 'Delete something in use' })
  await expect(asked).toContainText('3 places use what you are about to delete')
  await expect(asked.getByRole('button', { name: 'Keep it' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(age).toBeFocused()
  await page.keyboard.press('Delete')
  await asked.getByRole('button', { name: 'Delete it all the same' }).click()
  await expect(age).toHaveCount(0)
  // It can be taken back where it is told, as long as nothing else was done.
  const told = page.getByText('1 line deleted.')
  await expect(told).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(age).toBeVisible()
  await expect(told).toHaveCount(0)

  // A new code goes into every rule, through whatever name the entry has there.
  await age.locator('.label').click()
  await page.getByLabel('Code', { exact: true }).fill('years')
  await page.getByLabel('Code', { exact: true }).press('Enter')
  await expect(page.locator('[data-address="item/years"]')).toBeVisible()
  await expect
    .poll(async () => JSON.stringify(await (await page.request.get(`/api/forms/${id}`)).json()))
    .toContain('some p in people satisfies p.years < 14')
  // The one fault is the note that stood there from the beginning.
  await expect(page.getByRole('link', { name: /Prove/ })).toContainText('1 fault')
  expect(errors).toEqual([])
})
