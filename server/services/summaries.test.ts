import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { renameEdits } from '../../core/form/rename'
import { dayNumber, isoFromDay } from '../../core/expressions/dates'
import { binCondition, daysCondition } from '../../core/summary/conditions'
import { nextSpan } from '../../core/summary/days'
import { ResponseQuery } from '../../shared/api/responses'
import { CrossQuery, SummaryQuery, type MeasureSummary } from '../../shared/api/summaries'
import { releases } from '../store/schema'
import { listResponses } from './responseTable'
import { RIGHTS } from '../../shared/api/sharing'
import {
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import { actOnResponses } from './actOnResponses'
import { amendResponse, loadCorrectable } from './amendResponse'
import { isoToday } from './calendar'
import { loadFormRow, saveEdits } from './drafts'
import { releaseForm } from './releases'
import { submitAnswers } from './submitAnswers'
import { crossResponses, summariseResponses } from './summaries'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const options = ['wood', 'steel'].map(code => ({ code, label: code }))
const FORM = formOf([
  question('hull', { type: 'choice', options }),
  question('metres', { type: 'integer' }),
  question('plank', { shownWhen: 'hull = "wood"' }),
])

async function begun() {
  const { db } = store
  const form = await releaseNew(store, FORM)
  const send = (answers: Record<string, string | number>, release = 1, token = form.token) =>
    submitAnswers(db, { token, caller: null }, { release, key: fresh('x'), begunOn: isoToday(), answers })
  await send({ hull: 'wood', metres: 8, plank: 'garboard' })
  await send({ hull: 'wood', metres: 12 })
  await send({ hull: 'steel', metres: 20 })
  const summarise = async (more: Record<string, string> = {}) => {
    const { groups, ...told } = await summariseResponses(db, form.id, SummaryQuery.parse(more))
    const shown = groups.map(({ label, measures }) => [
      label,
      Object.fromEntries(measures[0]?.options.map(o => [o.code, o.count]) ?? []),
      measures[2]?.unasked,
    ])
    return { ...told, shown }
  }
  return { ...form, send, summarise, ids: (await storedResponses(db, form.id)).map(r => r.id) }
}

/** The parts of a figure that lead to responses: the condition behind each, and how many it counts. */
function partsOf({ measure, options, numbers, days }: MeasureSummary) {
  const { asked } = measure
  const bins = numbers?.bins ?? []
  const spans = days?.spans ?? []
  const found = [
    ...options.map(o => ({ where: o.asked, count: o.count })),
    ...bins.map((b, i) => ({
      where: binCondition(measure, b.from, b.to, i === bins.length - 1),
      count: b.count,
    })),
    ...spans.map(({ from, count }) => {
      const next = isoFromDay(nextSpan(dayNumber(from) ?? 0, days?.span ?? 'day'))
      return { where: asked && daysCondition(asked, from, next), count }
    }),
  ]
  return found.flatMap(({ where, count }) => (where === null ? [] : [{ where, count }]))
}

describe('summaries of responses', () => {
  it('follow what is sent, corrected, deleted and put back, filtered and compared', async () => {
    const { id, ids, send, summarise } = await begun()
    const [first = '', second = ''] = ids
    expect((await summarise()).shown).toEqual([['', { wood: 2, steel: 1 }, 1]])
    await send({ hull: 'steel' })
    expect((await summarise()).shown).toEqual([['', { wood: 2, steel: 2 }, 2]])
    const { base } = await loadCorrectable(store.db, first)
    await amendResponse(store.db, first, { answers: { hull: 'steel' }, reason: 'Seen', base }, 'Ines')
    expect((await summarise()).shown).toEqual([['', { wood: 1, steel: 3 }, 3]])
    const doer = { name: 'Ines', powers: new Set(RIGHTS) }
    const act = (act: 'put back' | 'delete for good') =>
      actOnResponses(store.db, id, { ids: [second], act: { do: act } }, doer)
    await actOnResponses(store.db, id, { ids: [second], act: { do: 'delete', reason: 'Twice' } }, doer)
    expect((await summarise()).shown).toEqual([['', { wood: 0, steel: 3 }, 3]])
    await act('put back')
    expect((await summarise({ where: 'metres > 10' })).shown).toEqual([['', { wood: 1, steel: 1 }, 1]])
    expect((await summarise({ by: 'hull' })).shown.map(g => g[0])).toEqual(['wood', 'steel'])
    await actOnResponses(store.db, id, { ids: [second], act: { do: 'delete', reason: 'Twice' } }, doer)
    await act('delete for good')
    expect((await summarise()).count).toBe(3)
  })

  it('what an older version calls otherwise stands under its question', async () => {
    const { id, send, summarise } = await begun()
    await summarise()
    const { draft } = await loadFormRow(store.db, id)
    await saveEdits(store.db, id, store.designer.id, 0, renameEdits(draft, 'item/hull', 'built_of'))
    const { token } = await releaseForm(store.db, id, store.designer, { revision: 1 })
    await send({ built_of: 'steel' }, 2, token)
    expect((await summarise()).shown).toEqual([['', { wood: 2, steel: 2 }, 2]])
  })

  it('the condition behind each part of a figure finds just the responses that the figure counts there', async () => {
    const { db } = store
    const rows = await db.select({ formId: releases.formId }).from(releases)
    for (const { formId } of rows) {
      const { groups } = await summariseResponses(db, formId, SummaryQuery.parse({ state: 'done' }))
      const parts = groups[0]?.measures.flatMap(partsOf) ?? []
      expect(parts.length).toBeGreaterThan(5)
      for (const { where, count } of parts) {
        const query = ResponseQuery.parse({ state: 'done', where, size: 1 })
        expect([where, (await listResponses(db, formId, query)).count]).toEqual([where, count])
      }
    }
  }, 60_000)

  it('a table has the mean of a number in each cell, and a mean of words is refused', async () => {
    const { id } = await begun()
    const cross = (more: object) =>
      crossResponses(store.db, id, CrossQuery.parse({ rows: 'hull', columns: '@release', ...more }))
    const { table } = await cross({ figure: 'mean', of: 'metres' })
    expect(table?.layers[0]?.cells).toEqual([[10], [20]])
    expect(await refusalOf(cross({ figure: 'mean', of: 'hull' }))).toMatchObject({ status: 422 })
    expect(await refusalOf(cross({ columns: 'plank' }))).toMatchObject({ status: 422 })
  })
})
