import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  type TestStore,
} from '../testing/testStore'
import { isoToday } from './calendar'
import { saveEdits } from './drafts'
import { listReleases, releaseForm } from './releases'
import { weighStored } from './storedFit'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

const FORM: Form = formOf([question('boat'), question('mast'), question('notes')])

it('tells which responses another version would find incomplete, wrong, or answered without need', async () => {
  const { db, designer } = store
  const { id, token } = await releaseNew(store, FORM)
  const given: Answers[] = [
    { boat: 'Osprey' },
    { boat: 'Tern', mast: 'pine' },
    { boat: 'Gull', notes: 'none' },
  ]
  for (const answers of given)
    await submitAnswers(db, byLink(token), {
      release: 1,
      key: fresh('sending'),
      begunOn: isoToday(),
      answers,
    })
  expect(await weighStored(db, id)).toMatchObject({
    isAll: true,
    weighed: 3,
    missing: 0,
    wrong: 0,
    unasked: 0,
    lines: [],
  })
  await saveEdits(db, id, designer.id, 0, [
    { do: 'change', what: 'item/boat', set: { code: 'vessel', maxLength: 4 } },
    { do: 'change', what: 'item/mast', set: { required: true } },
    { do: 'change', what: 'item/notes', set: { shownWhen: 'mast != null' } },
  ])
  const fit = await weighStored(db, id)
  expect(fit).toMatchObject({ weighed: 3, missing: 2, wrong: 1, unasked: 1 })
  const told = fit.lines.map(l => [l.number, l.isDone, ...l.misfits.map(m => `${m.kind} ${m.label}`)])
  expect(told.toSorted()).toEqual([
    [1, true, 'wrong boat', 'missing mast'],
    [3, true, 'missing mast', 'unasked notes'],
  ])
})

it('a code that means something else is not released, unless it is only worded otherwise and somebody says so', async () => {
  const { db, designer } = store
  const { id } = await releaseNew(store, FORM)
  await saveEdits(db, id, designer.id, 0, [{ do: 'change', what: 'item/mast', set: { label: 'Rigging' } }])
  const release = (revision: number, sameMeanings: string[] = []) =>
    releaseForm(db, id, designer, { revision, sameMeanings })
  expect(await refusalOf(release(1))).toMatchObject({ code: 'other-meaning', paths: ['mast'] })
  await release(1, ['item/mast '])
  const [released] = await listReleases(db, id)
  expect(released?.accepted).toMatchObject([{ finding: { code: 'other-meaning' }, by: designer.name }])
  await saveEdits(db, id, designer.id, 1, [{ do: 'change', what: 'item/notes', set: { type: 'yesNo' } }])
  expect(await refusalOf(release(2, ['item/notes ']))).toMatchObject({
    code: 'other-meaning',
    paths: ['notes'],
  })
})
