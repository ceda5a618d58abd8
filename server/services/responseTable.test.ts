import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ResponseQuery } from '../../shared/api/responses'
import {
  formOf,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedReleases,
  type TestStore,
} from '../testing/testStore'
import type { Database } from '../store/database'
import { responses } from '../store/schema'
import { loadForm } from './loadForm'
import { powersOf } from './people/rights'
import { listResponses } from './responseTable'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const COUNT = 2_500
const COLOURS = ['red', 'green', 'blue'] as const
/** What the n-th response holds: its number as a text, too, so that texts and numbers sort apart. */
const answersOf = (n: number) => ({ size: n, name: `Boat ${n}`, hull: COLOURS[n % 3]! })
const byDefault = ResponseQuery.parse({})
let form: string
beforeAll(async () => {
  const items = [
    question('size', { type: 'integer' }),
    question('name'),
    question('hull', {
      type: 'choice',
      options: COLOURS.map(code => ({ code, label: `Painted ${code}` })),
    }),
    question('id', { shownWhen: 'size < 0' }),
  ]
  const { id } = await releaseNew(store, formOf(items))
  const [release] = await storedReleases(db, id)
  const all = Array.from({ length: COUNT }, (_, n) => ({
    releaseId: release!.id,
    number: n + 1,
    sendingKey: `table-${n}`,
    sentAt: new Date(Date.UTC(2026, 0, 1, 0, 0, n)),
    begunOn: '2026-01-01',
    answers: answersOf(n),
  }))
  for (let i = 0; i < COUNT; i += 500) await db.insert(responses).values(all.slice(i, i + 500))
  form = id
}, 120_000)
const list = (query: Partial<ResponseQuery> = {}) => listResponses(db, form, { ...byDefault, ...query })
const sizes = async (query: Partial<ResponseQuery>) => (await list(query)).rows.map(r => Number(r.cells.size))

describe('the table of responses', () => {
  it('counts all of them, and has every one on some page', async () => {
    const pages = Math.ceil(COUNT / 200)
    const seen = new Set<number>()
    for (let page = 1; page <= pages; page++)
      for (const size of await sizes({ page, size: 200 })) seen.add(size)
    expect(seen.size).toBe(COUNT)
    expect(await list()).toMatchObject({ count: COUNT, all: COUNT, hasTurns: false })
    expect((await loadForm(db, form, powersOf(['own']))).responses).toBe(COUNT)
    expect(await sizes({ page: pages + 1, size: 200 })).toEqual([])
  })

  it('sorts over all pages: numbers as numbers, the newest first by itself', async () => {
    const first = [0, 1, 2, 3, 4]
    const last = first.map(n => COUNT - 1 - n)
    expect(await sizes({ size: 5 })).toEqual(last)
    expect(await sizes({ size: 5, sort: 'sentAt' })).toEqual(first)
    expect(await sizes({ size: 5, sort: 'cells.size' })).toEqual(first)
    expect(await sizes({ size: 5, sort: '-cells.size' })).toEqual(last)
    expect(await sizes({ size: 5, page: 3, sort: 'cells.size' })).toEqual([10, 11, 12, 13, 14])
  })

  it('finds by what was answered and by the labels of choices, whatever signs are typed', async () => {
    const found = await list({ search: 'boat 249', sort: 'cells.size', size: 20 })
    const expected = Array.from({ length: COUNT }, (_, n) => n).filter(n => String(n).startsWith('249'))
    expect(found.count).toBe(expected.length)
    expect(found.rows.map(r => Number(r.cells.size))).toEqual(expected)
    const blue = await list({ search: 'painted BLUE' })
    expect(blue.count).toBe(Math.floor(COUNT / 3))
    expect(blue.rows.every(r => r.cells.hull === 'Painted blue')).toBe(true)
    for (const search of ['100%', 'Boat_1', 'hull', '":', "'; drop table responses; --", '\\'])
      expect((await list({ search })).count).toBe(0)
  })

  it('has a cell for each question, its own even where the code is a word of the table', async () => {
    const { columns, rows } = await list({ size: 1 })
    expect(columns.map(c => c.code)).toEqual(['size', 'name', 'hull', 'id'])
    const n = COUNT - 1
    expect(rows[0]?.cells).toEqual({
      size: '2499',
      name: `Boat ${n}`,
      hull: `Painted ${COLOURS[n % 3]}`,
      id: '·',
    })
  })
})

describe('the filter of the table', () => {
  it('filters by a condition, by state, version and day', async () => {
    const counted = async (query: Partial<ResponseQuery>) => (await list(query)).count
    expect(await counted({ where: 'size >= 10 and size < 20' })).toBe(10)
    expect(
      await counted({ where: 'hull = "red" and ends with(name, "7")', search: 'boat 2' }),
    ).toBeGreaterThan(5)
    expect(await counted({ since: '2026-01-02' })).toBe(0)
    expect(await counted({ since: '2026-01-01', until: '2026-01-01' })).toBe(COUNT)
    expect(await counted({ state: 'done', release: 1 })).toBe(COUNT)
    for (const state of ['progress', 'late', 'corrected', 'withdrawn'] as const)
      expect([state, await counted({ state })]).toEqual([state, 0])
    expect(await counted({ release: 2 })).toBe(0)
    expect(await refusalOf(list({ where: 'size >' }))).toMatchObject({ status: 422, code: 'wrong-filter' })
    expect(await refusalOf(list({ where: 'draught > 2' }))).toMatchObject({
      code: 'wrong-filter',
      paths: ['where'],
    })
  })
})
