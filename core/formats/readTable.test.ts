import fc from 'fast-check'
import Papa from 'papaparse'
import { expect, it } from 'vitest'
import { answersInPlay, allProblems, fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import type { Filled } from '../fill/frame'
import type { Form, Item } from '../form/definition'
import { isRecord, sameAnswer, type Answers } from '../form/answers'
import { listAnswerColumns, type Cell, type TableStyle } from './answerTable'
import { defuseFormula, restoreFormula } from './formulas'
import { matchColumns } from './readTable'
import { weighRow } from './weighRow'

const TODAY = '2026-11-01'
const asked = (type: string, code: string, more: object = {}) =>
  ({ kind: 'question', type, code, label: code, ...more }) as Item
/** Labels that hold what stands between several of them, and one that is the beginning of another. */
const OPTIONS = [
  { code: 'comb', label: 'Comb, cut' },
  { code: 'cut', label: 'Comb' },
  { code: 'wax', label: '=Wax' },
]
const FORM: Form = {
  ...{ tobbin: 2, code: 'f', title: 'F' },
  sections: [
    {
      ...{ code: 's', title: 'S' },
      items: [
        asked('text', 'keeper', { label: 'The same label' }),
        asked('longText', 'remark', { label: 'The same label' }),
        asked('integer', 'hives', { unit: 'hives' }),
        asked('decimal', 'honey'),
        asked('money', 'price', { currency: 'EUR' }),
        asked('money', 'fee', { currency: 'EUR', currencies: ['EUR', 'DKK'] }),
        asked('yesNo', 'sold'),
        asked('choice', 'kind', { options: OPTIONS, writeIn: true }),
        asked('choices', 'kinds', { options: OPTIONS, writeIn: true }),
        asked('date', 'seen', { shownWhen: 'sold = true' }),
        asked('time', 'at'),
        asked('email', 'mail'),
        asked('scale', 'calm', { min: 1, max: 5 }),
        asked('hidden', 'berth', { holds: 'number' }),
        asked('grid', 'state', {
          rows: ['food', 'brood'].map(row => ({ code: row, label: `The ${row}; now` })),
          options: [...OPTIONS.slice(0, 2), { code: 'none', label: 'None: at all' }],
          notApplicable: true,
        }),
        asked('ranking', 'order', { options: OPTIONS }),
        asked('signature', 'signed'),
      ],
    },
  ],
}
const PLAN = planOf(FORM)
const own = (filled: Filled, code: string) => filled.plan.byCode.get(code)
const code = fc.constantFrom('comb', 'cut', 'wax')
const words = fc.string({ minLength: 1, maxLength: 8 }).filter(t => t.trim() !== '' && !t.includes('\r'))
const cents = fc.integer({ min: 0, max: 9_999_999 }).map(n => (n / 100).toFixed(2))
const arbitrary: fc.Arbitrary<Answers> = fc.record(
  {
    keeper: words,
    remark: words,
    hives: fc.integer({ min: -500, max: 99_999 }),
    honey: fc.integer({ min: -500, max: 9_999 }).map(n => n / 100),
    price: cents.map(amount => ({ amount, currency: 'EUR' })),
    fee: fc.record({ amount: cents, currency: fc.constantFrom('EUR', 'DKK') }),
    sold: fc.boolean(),
    kind: fc.oneof(code, fc.constant({ other: 'Cells, open' })),
    kinds: fc
      .record({
        codes: fc.uniqueArray(code, { minLength: 1 }),
        own: fc.constantFrom([], [{ other: 'Skep' }]),
      })
      .map(({ codes, own: written }) => [...codes, ...written]),
    seen: fc.constantFrom('2026-05-01', '2024-02-29'),
    at: fc.constantFrom('10:30', '00:00'),
    mail: fc.constant('zoe@comb.example'),
    calm: fc.integer({ min: 1, max: 5 }),
    berth: fc.integer({ min: 0, max: 900 }),
    state: fc.record(
      {
        food: fc.constantFrom('comb', 'cut', 'none', 'not_applicable'),
        brood: fc.constantFrom('cut', 'none'),
      },
      { requiredKeys: ['food'] },
    ),
    order: fc.shuffledSubarray(['comb', 'cut', 'wax'], { minLength: 3 }),
  },
  { requiredKeys: [] },
)
const styled = fc.record<TableStyle>({
  values: fc.constantFrom('labels', 'codes', 'both'),
  isSpread: fc.boolean(),
})

/** A response as a table of one row that was written as CSV and read again; or as the cells of a workbook. */
function takenOut(filled: Filled, style: TableStyle, isCsv: boolean): { heads: string[]; cells: Cell[] } {
  const columns = listAnswerColumns(PLAN, style, own)
  const [heads, cells] = [columns.map(c => c.head), columns.map(c => c.read(filled))]
  if (!isCsv) return { heads, cells }
  const written = Papa.unparse([
    heads.map(defuseFormula),
    cells.map((cell, i) => (typeof cell === 'string' && columns[i]?.isText ? defuseFormula(cell) : cell)),
  ])
  const [readHeads = [], readCells = []] = Papa.parse<string[]>(written).data
  return { heads: readHeads.map(restoreFormula), cells: readCells.map(restoreFormula) }
}
const weigh = (table: ReturnType<typeof takenOut>, stored: Answers | null) => {
  const columns = matchColumns(PLAN, table.heads, own)
  const before = stored && { answers: stored, begunOn: TODAY }
  return weighRow(PLAN, { columns, sheets: [] }, { cells: table.cells }, before, TODAY)
}

/** Whether something was written in that has no column of its own. */
const isWrittenIn = ({ kind, kinds }: Answers, { isSpread }: TableStyle) =>
  isRecord(kind) || (!isSpread && Array.isArray(kinds) && kinds.some(isRecord))

it('what is taken out as a table comes in again with the same answers, and changes nothing where it came from', () => {
  fc.assert(
    fc.property(arbitrary, styled, fc.boolean(), (answers, style, isCsv) => {
      const filled = fill(PLAN, answers, TODAY)
      fc.pre(allProblems(filled).length === 0)
      // Codes alone do not tell what was written in.
      fc.pre(style.values !== 'codes' || !isWrittenIn(answers, style))
      const table = takenOut(filled, style, isCsv)
      const stored = answersInPlay(filled)
      expect(weigh(table, stored)).toMatchObject({ is: 'same', problems: [] })
      const anew = weigh(table, null)
      expect(anew.problems).toEqual([])
      expect(answersInPlay(fill(PLAN, anew.answers, TODAY))).toEqual(stored)
    }),
  )
})

it('a row with the cells of another response makes the one of the other, but for what no cell tells', () => {
  fc.assert(
    fc.property(arbitrary, arbitrary, styled, fc.boolean(), (from, to, style, isCsv) => {
      const before = answersInPlay(fill(PLAN, { ...from, signed: { typed: 'Zoe' } }, TODAY))
      const wanted = fill(PLAN, { ...to, signed: { typed: 'Zoe' } }, TODAY)
      const weighed = weigh(takenOut(wanted, style, isCsv), before)
      if (weighed.is === 'refused') {
        // What came with a link is corrected by nobody, and a code does not tell what was written in.
        const isLost = style.values === 'codes' && isWrittenIn(to, style)
        for (const { path } of weighed.problems)
          expect(isLost ? ['berth', 'kind', 'kinds'] : ['berth']).toContain(path)
        return
      }
      const after = fill(PLAN, { ...before, ...weighed.answers }, TODAY)
      expect(sameAnswer(answersInPlay(after), answersInPlay(wanted))).toBe(true)
    }),
  )
})
