import fc from 'fast-check'
import { expect, it } from 'vitest'
import { allProblems, answersInPlay, fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import type { Filled } from '../fill/frame'
import { sameAnswer, type Answer, type Answers } from '../form/answers'
import type { Form, Item } from '../form/definition'
import { listAnswerColumns } from './answerTable'
import { listEntryTables } from './entryTable'
import { matchSheets, type EntryRow } from './readEntries'
import { matchColumns } from './readTable'
import { workbookNames } from './sheetNames'
import { weighRow } from './weighRow'

const TODAY = '2026-11-01'
const asked = (type: string, code: string, more: object = {}) =>
  ({ kind: 'question', type, code, label: code, ...more }) as Item
const KINDS = ['log', 'top'].map(code => ({ code, label: `A ${code} hive, used` }))
const STEPS = ['low', 'high'].map(code => ({ code, label: `${code}; so far` }))
/** An apiary: hives, each with what no cell tells of it (who signed, its frames), and the weather as a grid. */
const FORM: Form = {
  ...{ tobbin: 2, code: 'f', title: 'F' },
  sections: [
    {
      ...{ code: 's', title: 'S' },
      items: [
        asked('text', 'keeper'),
        {
          ...{ kind: 'group', code: 'hives', title: 'Hives: all', repeat: { min: 0, max: 4 } },
          items: [
            asked('text', 'name', { label: 'The same label' }),
            asked('longText', 'remark', { label: 'The same label' }),
            asked('integer', 'boxes'),
            asked('choice', 'kind', { options: KINDS }),
            asked('choices', 'tried', { options: KINDS }),
            asked('grid', 'state', {
              rows: ['food', 'brood'].map(code => ({ code, label: `The ${code}: now` })),
              options: STEPS,
            }),
            asked('ranking', 'order', { options: KINDS }),
            asked('value', 'twice', { value: 'boxes * 2' }),
            asked('signature', 'signed'),
            {
              ...{ kind: 'group', code: 'frames', title: 'Frames', repeat: { min: 0, max: 2 } },
              items: [asked('integer', 'cells')],
            },
          ],
        },
        {
          ...{ kind: 'group', code: 'feeds', title: 'Feeds', repeat: { min: 0, max: 2 } },
          items: [asked('decimal', 'litres')],
        },
      ],
    },
  ],
}
const PLAN = planOf(FORM)
const words = fc.string({ minLength: 1, maxLength: 6 }).filter(t => t.trim() !== '' && !t.includes('\r'))
const kind = fc.constantFrom('log', 'top')
const told: fc.Arbitrary<Record<string, Answer>> = fc.record(
  {
    name: words,
    remark: words,
    boxes: fc.integer({ min: -9, max: 99_999 }),
    kind,
    tried: fc.uniqueArray(kind, { minLength: 1 }),
    state: fc.record({ food: fc.constantFrom('low', 'high'), brood: fc.constantFrom('low', 'high') }),
    order: fc.constantFrom<string[][]>(['log', 'top'], ['top', 'log']),
  },
  { requiredKeys: [] },
)
const untold: fc.Arbitrary<Record<string, Answer>> = fc.record(
  {
    signed: fc.constant({ typed: 'Zoe' }),
    frames: fc.array(fc.record({ cells: fc.nat(9) }), { minLength: 1, maxLength: 2 }),
  },
  { requiredKeys: [] },
)
const feeds = fc.array(fc.record({ litres: fc.integer({ min: 0, max: 99 }).map(n => n / 10) }), {
  maxLength: 2,
})
const own = (filled: Filled, code: string) => filled.plan.byCode.get(code)

/** A response as a workbook has it: its row, and its entries by sheet. */
function takenOut(filled: Filled) {
  const columns = listAnswerColumns(PLAN, { values: 'labels', isSpread: false }, own)
  const tables = listEntryTables(PLAN, (one, code) => one.plan.groups.get(code))
  const names = workbookNames(tables).slice(1)
  return {
    heads: columns.map(c => c.head),
    cells: columns.map(c => c.read(filled)),
    sheets: tables.map((t, i) => ({ name: names[i] ?? '', heads: t.heads })),
    entries: tables.map(t => t.rowsOf(filled).map((cells, i): EntryRow => ({ entry: i + 1, cells }))),
  }
}
function weigh({ heads, cells, sheets, entries }: ReturnType<typeof takenOut>, stored: Answers | null) {
  const table = { columns: matchColumns(PLAN, heads, own), sheets: matchSheets(PLAN, sheets) }
  const before = stored && { answers: stored, begunOn: TODAY }
  return weighRow(PLAN, table, { cells, entries }, before, TODAY)
}
const filledWith = (answers: Answers) => {
  const filled = fill(PLAN, answers, TODAY)
  fc.pre(allProblems(filled).length === 0)
  return filled
}
const responses = fc.record({
  keeper: words,
  hives: fc.array(fc.tuple(told, untold), { maxLength: 3 }),
  feeds,
})
const answersOf = ({
  keeper,
  hives,
  feeds: fed,
}: {
  keeper: string
  hives: [object, object][]
  feeds: Answer
}) => ({ keeper, hives: hives.map(([a, b]) => ({ ...a, ...b })), feeds: fed }) as Answers

it('entries that are taken out as sheets change nothing where they came from', () => {
  fc.assert(
    fc.property(responses, given => {
      const filled = filledWith(answersOf(given))
      expect(weigh(takenOut(filled), answersInPlay(filled))).toMatchObject({ is: 'same', problems: [] })
    }),
  )
})

it('entries of another response become those of this one, and keep what no cell tells; without a response they begin one', () => {
  fc.assert(
    fc.property(responses, responses, (from, to) => {
      const before = answersInPlay(filledWith(answersOf(from)))
      const hives = to.hives.map(([own], i): [object, object] => [own, from.hives[i]?.[1] ?? {}])
      const wanted = filledWith(answersOf({ ...to, hives }))
      const table = takenOut(wanted)
      // What repeats inside of entries stands in the row as it was taken out.
      const nested = table.heads.indexOf('cells')
      const kept = takenOut(fill(PLAN, before, TODAY)).cells[nested] ?? null
      const changed = weigh({ ...table, cells: table.cells.with(nested, kept) }, before)
      expect(changed.problems).toEqual([])
      const after = answersInPlay(fill(PLAN, { ...before, ...changed.answers }, TODAY))
      expect(sameAnswer(after, answersInPlay(wanted))).toBe(true)
      const bare = filledWith(answersOf({ ...to, hives: to.hives.map(([own]) => [own, {}]) }))
      const anew = weigh(takenOut(bare), null)
      expect(anew.problems).toEqual([])
      const begun = answersInPlay(fill(PLAN, anew.answers, TODAY))
      expect(sameAnswer(begun, answersInPlay(bare))).toBe(true)
    }),
  )
})

it('what can’t be read is said with its sheet and its column, and an entry that stands twice', () => {
  const table = takenOut(filledWith({ keeper: 'Zoe', hives: [{ boxes: 2, signed: { typed: 'Zoe' } }] }))
  const [row] = table.entries[0] ?? []
  if (!row) throw new Error('The table has no entry.')
  const cells = row.cells.map((cell, i) => (table.sheets[0]?.heads[i] === 'order' ? '1. Skep' : cell))
  const twice = { ...table, entries: [[{ ...row, cells }, row]] }
  const { is, problems } = weigh(twice, { keeper: 'Zoe', hives: [{ boxes: 2, signed: { typed: 'Zoe' } }] })
  expect(is).toBe('refused')
  expect(problems.map(p => p.path)).toEqual(['Hives  all: order', 'Hives  all: Entry'])
})

it('a row that says nothing of its entries leaves them as they are', () => {
  const stored = { keeper: 'Zoe', hives: [{ boxes: 2 }] }
  const { heads, cells, sheets } = takenOut(filledWith(stored))
  const table = { columns: matchColumns(PLAN, heads, own), sheets: matchSheets(PLAN, sheets) }
  const weighed = weighRow(PLAN, table, { cells }, { answers: stored, begunOn: TODAY }, TODAY)
  expect(weighed).toMatchObject({ is: 'same', problems: [] })
})
