import { buffer } from 'node:stream/consumers'
import Papa from 'papaparse'
import readXlsx from 'read-excel-file/node'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { z } from 'zod'
import { restoreFormula } from '../../core/formats/formulas'
import type { Answers } from '../../core/form/answers'
import { ExportQuery } from '../../shared/api/responses'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  releaseNew,
  storedReleases,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import { releases } from '../store/schema'
import { isoToday } from './calendar'
import { saveEdits } from './drafts'
import { exportResponses } from './exportResponses'
import { releaseForm } from './releases'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

const HIVES = [
  { code: 'log', label: 'Log hive' },
  { code: 'top', label: 'Top bar' },
]
const FORM = formOf([
  question('place', { label: 'Where, and "how"?' }),
  question('frames', { type: 'integer', label: 'Frames' }),
  question('seen', { type: 'date', label: 'Seen on' }),
  question('queen', { type: 'yesNo', label: 'Queen' }),
  question('hives', { type: 'choices', label: 'Hives', options: HIVES }),
  question('why', { label: 'Why not?', shownWhen: 'queen = false' }),
  {
    ...{ kind: 'group', code: 'swarms', title: 'Swarms', repeat: { min: 0, max: 3 } },
    items: [question('height', { type: 'decimal', label: 'Height' })],
  },
])
const GIVEN: Answers[] = [
  {
    ...{ place: '=HYPERLINK("x"),\n"Orchard"', frames: -3, seen: '2026-05-01', queen: false, why: '-' },
    ...{ hives: ['log', 'top'], swarms: [{ height: 1.5 }, { height: 4 }] },
  },
  { place: 'Meadow', frames: 12, seen: '2026-06-02', queen: true, hives: ['top'] },
  { place: "'=quoted", queen: true },
]

async function released(): Promise<string> {
  const { id, token } = await releaseNew(store, FORM)
  for (const answers of GIVEN) {
    const sending = { release: 1, key: fresh('export'), begunOn: isoToday(), answers }
    await submitAnswers(store.db, byLink(token), sending)
  }
  return id
}
type Asked = Partial<z.input<typeof ExportQuery>>
const taken = async (id: string, query: Asked) => {
  const asked = ExportQuery.parse({ format: 'csv', ...query })
  return buffer((await exportResponses(store.db, id, asked)).content)
}
const csvOf = async (id: string, query: Asked = {}) =>
  Papa.parse<string[]>((await taken(id, query)).toString('utf8').replace(/^\uFEFF/, ''), {
    skipEmptyLines: true,
  }).data

it('a table of responses as CSV: quoted, no formula, numbers as numbers, choices as asked for', async () => {
  const id = await released()
  const [heads = [], first = [], second = [], third = []] = await csvOf(id)
  const cell = (row: string[], head: string) => row[heads.indexOf(head)]
  expect(heads.slice(0, 6)).toEqual(['No.', 'Sent', 'Begun', 'Corrected', 'Version', 'State'])
  expect(cell(first, 'Where, and "how"?')).toBe(`'${String(GIVEN[0]?.place)}`)
  expect([first, second, third].map(r => restoreFormula(cell(r, 'Where, and "how"?') ?? ''))).toEqual(
    GIVEN.map(g => g.place),
  )
  expect([first, second, third].map(r => cell(r, 'Frames'))).toEqual(['-3', '12', ''])
  expect(cell(first, 'Queen')).toBe('no')
  expect(cell(first, 'Hives')).toBe('Log hive, Top bar')
  expect(cell(first, 'Height')).toBe('1.5 | 4')
  expect([cell(first, 'Why not?'), cell(second, 'Why not?')]).toEqual(["'-", ''])
  const spread = await csvOf(id, { spread: 'yes', where: 'queen = true' })
  const [wide = [], meadow = []] = spread
  expect(spread.length).toBe(3)
  expect(wide.filter(h => h.startsWith('Hives'))).toEqual(['Hives: Log hive', 'Hives: Top bar'])
  expect([meadow[wide.indexOf('Hives: Log hive')], meadow[wide.indexOf('Hives: Top bar')]]).toEqual([
    'no',
    'yes',
  ])
  expect((await csvOf(id, { values: 'both' }))[0]).toContain('Hives: code')
  const [, last] = await storedResponses(store.db, id)
  const picked = await taken(id, { ids: last?.id, where: 'queen = true' })
  expect(Papa.parse<string[]>(picked.toString('utf8').trim()).data.map(row => row[0]?.trim())).toEqual([
    'No.',
    '2',
  ])
})

it('a workbook keeps types, has a sheet for what repeats and one of codes; lines are the stored answers', async () => {
  const id = await released()
  const file = await taken(id, { format: 'xlsx' })
  const sheets = await readXlsx(file)
  expect(sheets.map(s => s.sheet)).toEqual(['Responses', 'Swarms', 'Codes'])
  const [responses, swarms, codes] = sheets.map(s => s.data)
  const heads = responses![0]!
  const first = responses![1]!
  expect(first[heads.indexOf('Frames')]).toBe(-3)
  expect(first[heads.indexOf('Queen')]).toBe(false)
  expect(first[heads.indexOf('Where, and "how"?')]).toBe(GIVEN[0]?.place)
  expect(swarms!.slice(1)).toEqual([
    [1, 1, 1.5],
    [1, 2, 4],
  ])
  expect(codes!.slice(1)).toEqual(HIVES.map(h => ['hives', 'Hives', h.code, h.label]))
  const lines = (await taken(id, { format: 'jsonl' })).toString('utf8').trim().split('\n')
  expect(lines.map(l => JSON.parse(l).answers)).toEqual(GIVEN.map(g => expect.objectContaining(g)))
})

it('what older versions call otherwise stands under its question', async () => {
  const { db, designer } = store
  const id = await released()
  await saveEdits(db, id, designer.id, 0, [
    { do: 'change', what: 'item/frames', set: { code: 'combs', label: 'Frames of comb' } },
  ])
  await releaseForm(db, id, designer, { revision: 1 })
  const [heads = [], first = []] = await csvOf(id)
  expect(first[heads.indexOf('Frames of comb')]).toBe('-3')
  expect(await csvOf(id, { where: 'combs < 0' })).toHaveLength(2)
})

it('what an older version held under the code of a day goes into a workbook as it is', async () => {
  const { db } = store
  const { id, token } = await releaseNew(store, formOf([question('seen')]))
  const answers = { seen: 'in May' }
  await submitAnswers(db, byLink(token), { release: 1, key: fresh('export'), begunOn: isoToday(), answers })
  const [first] = await storedReleases(db, id)
  const { id: _, ...rest } = first!
  const definition = formOf([question('seen', { type: 'date' })])
  await db.insert(releases).values({ ...rest, number: 2, token: fresh('token'), definition })
  const [responses] = await readXlsx(await taken(id, { format: 'xlsx' }))
  expect(responses!.data[1]!.at(-1)).toBe('in May')
})
