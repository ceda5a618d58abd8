import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Form } from '../../core/form/definition'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  releaseNew,
  type TestStore,
} from '../testing/testStore'
import { isoToday } from './calendar'
import { saveEdits } from './drafts'
import { submitAnswers } from './submitAnswers'
import { listUnderWay } from './underWay'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

const form: Form = {
  ...formOf([question('boat', { required: true })]),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'ask', party: 'owner', by: 'link', access: { s: 'fills' } },
    {
      code: 'check',
      party: 'yard',
      by: { person: 'yard@wherry.example' },
      access: { s: 'reads', work: 'fills' },
    },
  ],
}
form.sections.push({ code: 'work', title: 'Work', items: [question('hours', { type: 'integer' })] })

it('responses in progress are counted by turn, with what the draft makes of it', async () => {
  const { id, token } = await releaseNew(store, form)
  expect(await listUnderWay(store.db, id)).toEqual([])
  for (const boat of ['Teasel', 'Wren'])
    await submitAnswers(store.db, byLink(token), {
      release: 1,
      key: fresh('sending'),
      begunOn: isoToday(),
      answers: { boat },
    })
  const told = async () => (await listUnderWay(store.db, id)).map(l => [l.release, l.name, l.count, l.change])
  expect(await told()).toEqual([[1, 'Yard', 2, 'same']])
  const save = (base: number, what: string, set: Record<string, unknown>) =>
    saveEdits(store.db, id, store.designer.id, base, [{ do: 'change', what, set }])
  await save(0, 'item/hours', { label: 'Hours of work' })
  expect(await told()).toEqual([[1, 'Yard', 2, 'changed']])
  await save(1, 'form', { turns: form.turns?.slice(0, 1) })
  expect(await told()).toEqual([[1, 'Yard', 2, 'gone']])
})
