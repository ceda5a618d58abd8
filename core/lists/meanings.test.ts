import { expect, it } from 'vitest'
import { planOf } from '../fill/plan'
import { applyEdits } from '../form/edits'
import type { Form, Item } from '../form/definition'
import { readForm } from '../form/read'
import { listMeaningChanges, newCodeEdits } from './meanings'

const formOf = (...items: object[]): Form => {
  const { form, problems } = readForm({
    ...{ tobbin: 2, code: 'survey', title: 'Survey' },
    sections: [{ code: 's', title: 'S', items: items.map(item => ({ kind: 'question', ...item })) }],
  })
  if (!form) throw new Error(JSON.stringify(problems))
  return form
}
const hull = (...labels: string[]) => ({
  ...{ type: 'choice', code: 'hull', label: 'Hull' },
  options: labels.map((label, i) => ({ code: 'abc'[i], label })),
})
const changesOf = (before: object, after: object) =>
  listMeaningChanges(formOf(before), formOf(after)).map(c => [c.option ?? c.code, c.isCertain])

it('tells another meaning from another wording', () => {
  const length = { type: 'integer', code: 'loa', label: 'Length over all', unit: 'm' }
  expect(changesOf(length, { ...length, type: 'decimal', label: 'Length' })).toEqual([])
  expect(changesOf(length, { type: 'text', code: 'loa', label: 'Length over all' })).toEqual([['loa', true]])
  expect(changesOf(length, { ...length, unit: 'ft' })).toEqual([['loa', false]])
  expect(changesOf(length, { ...length, label: 'Draught' })).toEqual([['loa', false]])
  const price = { type: 'money', code: 'price', label: 'Price', currency: 'EUR' }
  expect(changesOf(price, { ...price, currency: 'GBP' })).toEqual([['price', true]])
  const scale = { type: 'scale', code: 'liked', label: 'Liked', min: 1, max: 5 }
  expect(changesOf(scale, { ...scale, max: 10 })).toEqual([['liked', true]])
  expect(changesOf(hull('Oak', 'Steel'), hull('Oak planks', 'Steel'))).toEqual([])
  expect(changesOf(hull('Oak', 'Steel'), hull('Steel', 'Oak'))).toEqual([
    ['a', true],
    ['b', true],
  ])
  expect(changesOf(hull('Oak', 'Steel'), hull('Ferrocement', 'Steel', 'Oak'))).toEqual([['a', false]])
  expect(changesOf(hull('2 days'), hull('3 days'))).toEqual([['a', false]])
})

it('a new code stands wherever the old one stood, and no meaning is changed any more', () => {
  const bolts = { type: 'text', code: 'bolts', label: 'Bolts', shownWhen: 'hull = "a"' }
  const before = formOf(hull('Oak', 'Steel'), bolts)
  const after = formOf(hull('Steel', 'Oak'), bolts)
  const mended = listMeaningChanges(before, after).reduce(
    (form, change) => applyEdits(form, newCodeEdits(form, change)).form,
    after,
  )
  expect(listMeaningChanges(before, mended)).toEqual([])
  const { options, shownWhen } = Object.assign({}, ...mended.sections[0]!.items) as Item & {
    options: { code: string; label: string }[]
    shownWhen: string
  }
  const steel = options.find(o => o.label === 'Steel')
  expect(shownWhen).toBe(`hull = "${steel?.code}"`)
  const other = formOf(
    { type: 'yesNo', code: 'hull', label: 'Is the hull new?' },
    { ...bolts, shownWhen: 'hull' },
  )
  const [change] = listMeaningChanges(before, other)
  const renamed = applyEdits(other, newCodeEdits(other, change!)).form
  expect(planOf(renamed).questions.map(q => q.place.code)).toEqual(['hull_2', 'bolts'])
  expect(listMeaningChanges(before, renamed)).toEqual([])
})
