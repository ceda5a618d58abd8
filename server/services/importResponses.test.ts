import { randomUUID } from 'node:crypto'
import { buffer } from 'node:stream/consumers'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { restoreFormula } from '../../core/formats/formulas'
import type { Answers } from '../../core/form/answers'
import type { ImportRow } from '../../shared/api/imports'
import { ExportQuery } from '../../shared/api/responses'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import { isoToday } from './calendar'
import { saveEdits } from './drafts'
import { exportResponses } from './exportResponses'
import { takeImport, weighImport } from './importResponses'
import { releaseForm } from './releases'
import { loadResponse } from './responses'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const options = ['log', 'top'].map(code => ({ code, label: `Hive ${code}` }))
const FORM = formOf([
  question('place', { label: 'Place', required: true }),
  question('frames', { type: 'integer', label: 'Frames', max: 20 }),
  question('kinds', { type: 'choices', label: 'Kinds', options }),
  question('queen', { type: 'yesNo', label: 'Queen' }),
  question('why', { label: 'Why', shownWhen: 'queen = false', required: true }),
  {
    ...{ kind: 'group', code: 'swarms', title: 'Swarms', repeat: { min: 0, max: 3 } },
    items: [question('height', { type: 'integer', label: 'Height' })],
  },
])
const SENT: Answers[] = [
  {
    place: '=Orchard',
    frames: 12,
    kinds: ['log', 'top'],
    queen: false,
    why: 'lost',
    swarms: [{ height: 4 }],
  },
  { place: 'Meadow', frames: 3, queen: true },
]

async function begun() {
  const { db } = store
  const form = await releaseNew(store, FORM)
  for (const answers of SENT) {
    const sending = { release: 1, key: fresh('import'), begunOn: isoToday(), answers }
    await submitAnswers(db, byLink(form.token), sending)
  }
  const { heads, lines } = await takenOut(form.id)
  return { ...form, heads, lines }
}
async function takenOut(id: string) {
  const { content } = await exportResponses(store.db, id, ExportQuery.parse({ format: 'csv' }))
  const text = (await buffer(content)).toString('utf8').replace(/^\uFEFF/, '')
  const [heads = [], ...lines] = Papa.parse<string[]>(text, { skipEmptyLines: true }).data
  return { heads, lines: lines.map(line => line.map(restoreFormula)) }
}
const rowOf = (cells: string[], number: number | null): ImportRow => ({
  number,
  key: randomUUID(),
  given: { cells },
})
type Rows = ImportRow[]
const look = (id: string, heads: string[], rows: Rows) =>
  weighImport(store.db, id, { heads, sheets: [], rows })
async function take(id: string, heads: string[], rows: Rows) {
  const looked = await look(id, heads, rows)
  const based = rows.map((row, i) => ({ ...row, base: looked.rows[i]?.base ?? null }))
  return () => takeImport(store.db, id, { heads, sheets: [], rows: based, reason: 'Counted again' }, 'Ines')
}

describe('bringing responses in', () => {
  it('what was taken out changes nothing where it came from, and makes the same responses elsewhere', async () => {
    const { id, heads, lines } = await begun()
    const rows = lines.map((line, i) => rowOf(line, i + 1))
    const looked = await look(id, heads, rows)
    expect(looked.rows.map(r => r.is)).toEqual(['same', 'same'])
    expect(looked.unread).toEqual(['No.', 'Sent', 'Begun', 'Corrected', 'Version', 'State'])
    const elsewhere = await releaseNew(store, FORM)
    const lost = heads.indexOf('Height')
    const anew = lines.map(line =>
      rowOf(
        line.map((cell, i) => (i === lost ? '' : cell)),
        null,
      ),
    )
    expect((await look(elsewhere.id, heads, [rowOf(lines[0]!, null)])).rows[0]).toMatchObject({
      is: 'refused',
      problems: [{ path: 'Height' }],
    })
    await (
      await take(elsewhere.id, heads, anew)
    )()
    const { swarms: _, ...first } = SENT[0]!
    expect((await storedResponses(store.db, elsewhere.id)).map(r => r.answers)).toEqual([first, SENT[1]])
    const exact = await releaseNew(store, FORM)
    const asStored = SENT.map((answers): ImportRow => ({
      number: null,
      key: randomUUID(),
      given: { answers },
    }))
    await (
      await take(exact.id, [], asStored)
    )()
    expect((await storedResponses(store.db, exact.id)).map(r => r.answers)).toEqual(SENT)
  })
})

describe('a row that is brought in', () => {
  it('is decided by the rules, and is taken once, as it was looked at or not at all', async () => {
    const { id, heads, lines } = await begun()
    const cells = (line: string[], more: Record<string, string>) =>
      line.map((cell, i) => more[heads[i] ?? ''] ?? cell)
    const rows = [
      rowOf(cells(lines[0]!, { Frames: '21' }), 1),
      rowOf(cells(lines[1]!, { Queen: 'no', Why: 'swarmed', Kinds: 'Hive top' }), 2),
      rowOf(cells(lines[1]!, { Place: 'Heath', Kinds: 'Skep' }), null),
      rowOf(cells(lines[1]!, { Place: 'Heath' }), null),
      rowOf(lines[1]!, 9),
    ]
    const taking = await take(id, heads, rows)
    const taken = await taking()
    expect(taken.rows.map(r => [r.is, r.number])).toEqual([
      ['refused', 1],
      ['changed', 2],
      ['refused', null],
      ['new', 3],
      ['refused', 9],
    ])
    expect(taken.rows.flatMap(r => r.problems.map(p => p.path))).toEqual(['frames', 'Kinds', 'No.'])
    const again = await taking()
    expect(again.rows.map(r => [r.is, r.number])).toEqual(
      taken.rows.map(r => [r.is === 'changed' ? 'same' : r.is, r.number]),
    )
    const stored = await storedResponses(store.db, id)
    expect(stored.map(r => r.answers)).toEqual([
      SENT[0],
      { ...SENT[1], queen: false, why: 'swarmed', kinds: ['top'] },
      { ...SENT[1], place: 'Heath' },
    ])
    const { history } = await loadResponse(store.db, stored[1]!.id, { email: '', mayAct: false })
    expect(history.map(h => [h.kind, h.who, h.remark])).toEqual([['corrected', 'Ines', 'Counted again']])
    // Whoever corrected it meanwhile is not overwritten.
    const late = await take(id, heads, [rowOf(cells(lines[1]!, { Frames: '5' }), 2)])
    await (
      await take(id, heads, [rowOf(cells(lines[1]!, { Frames: '6' }), 2)])
    )()
    expect((await late()).rows[0]).toMatchObject({ is: 'refused', number: 2 })
  })

  it('a column that is called otherwise now is read under its new name in older versions', async () => {
    const { db, designer } = store
    const { id } = await begun()
    const renamed = { code: 'combs', label: 'Combs' }
    await saveEdits(db, id, designer.id, 0, [{ do: 'change', what: 'item/frames', set: renamed }])
    await releaseForm(db, id, designer, { revision: 1 })
    const { heads, lines } = await takenOut(id)
    const rows = [
      rowOf(
        lines[1]!.map((cell, i) => (heads[i] === 'Combs' ? '8' : cell)),
        2,
      ),
    ]
    expect((await (await take(id, heads, rows))()).rows[0]?.is).toBe('changed')
    expect((await storedResponses(db, id))[1]?.answers).toEqual({ ...SENT[1], frames: 8 })
  })
})

it('entries are brought in from a sheet of their own, by what they and their group are called now in older versions', async () => {
  const { db, designer } = store
  const { id } = await begun()
  const edits = [
    { do: 'change' as const, what: 'item/swarms', set: { code: 'clusters' } },
    { do: 'change' as const, what: 'item/height', set: { code: 'metres', label: 'Metres' } },
  ]
  await saveEdits(db, id, designer.id, 0, edits)
  await releaseForm(db, id, designer, { revision: 1 })
  const { heads, lines } = await takenOut(id)
  const sheets = [{ name: 'Swarms', heads: ['Metres'] }]
  const entries = [
    [
      { entry: 1, cells: [6] },
      { entry: null, cells: [2] },
    ],
    [{ entry: null, cells: ['high'] }],
  ]
  const rows = entries.map((own, i) => ({
    ...rowOf(lines[i]!, i + 1),
    given: { cells: lines[i]!, entries: [own] },
  }))
  const { unread, rows: looked } = await weighImport(db, id, { heads, sheets, rows })
  expect(unread.filter(head => head.includes('Metres'))).toEqual([])
  expect(looked.map(r => r.is)).toEqual(['changed', 'refused'])
  const based = rows.map((row, i) => ({ ...row, base: looked[i]?.base ?? null }))
  await takeImport(db, id, { heads, sheets, rows: based, reason: 'Counted again' }, 'Ines')
  const stored = (await storedResponses(db, id)).map(r => r.answers)
  expect(stored).toEqual([{ ...SENT[0], swarms: [{ height: 6 }, { height: 2 }] }, SENT[1]])
})
