import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Form, Item } from '../form/definition'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import type { Answers } from '../form/answers'
import { crossTable } from './crossTable'
import { dimensionOf } from './dimensions'
import { Column, FactTable } from './factTable'
import { listMeasures } from './measures'
import { binEdges, quantile, summariseNumbers, sumOf } from './numbers'
import { AHEAD, readCells } from './readCells'
import { summariseTable } from './summarise'
import { countDays } from './days'

const asked = (type: string, code: string, more: object = {}) =>
  ({ kind: 'question', type, code, label: code, ...more }) as Item
const OPTIONS = ['wood', 'steel', 'glass'].map(code => ({ code, label: code.toUpperCase() }))
const FORM: Form = {
  ...{ tobbin: 2, code: 'f', title: 'F' },
  sections: [
    {
      ...{ code: 's', title: 'S' },
      items: [
        asked('choice', 'hull', { options: OPTIONS }),
        asked('choices', 'work', { options: OPTIONS, shownWhen: 'hull = "wood"' }),
        asked('decimal', 'length', { decimals: 2 }),
        asked('yesNo', 'insured'),
        asked('date', 'wanted'),
      ],
    },
  ],
}
const PROMISED = { code: 'long_insured', text: 'Long is insured', holds: 'length < 20 or insured = true' }
const PLAN = planOf({ ...FORM, promises: [PROMISED] })
const code = fc.constantFrom('wood', 'steel', 'glass')
const arbitrary: fc.Arbitrary<Answers> = fc.record(
  {
    hull: code,
    work: fc.uniqueArray(code, { minLength: 1 }),
    length: fc.integer({ min: -500, max: 9_999 }).map(n => n / 100),
    insured: fc.boolean(),
    wanted: fc
      .integer({ min: 0, max: 700 })
      .map(n => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10)),
  },
  { requiredKeys: [] },
)
const facts = { sentAt: 0, release: 1, state: 'done', tray: null }

function tableOf(all: readonly Answers[]) {
  const table = new FactTable(listMeasures(PLAN))
  fillTable(table, all, '')
  return table
}

function fillTable(table: FactTable, all: readonly Answers[], name: string) {
  for (const [i, answers] of all.entries()) {
    const filled = fill(PLAN, answers, '2026-11-01')
    table.put(
      `${name}${i}`,
      facts,
      readCells(table.measures, filled, own => PLAN.byCode.get(own), null),
    )
  }
}

describe('promises', () => {
  it('are counted as kept or broken over what is done, and not yet for what is in progress', () => {
    fc.assert(
      fc.property(fc.array(arbitrary, { maxLength: 20 }), all => {
        const table = tableOf(all)
        const found = summariseTable(table, table.allRows()).at(-1)
        // Three-valued: a blank length is neither short nor long, and no insurance is not known.
        const isKept = ({ length, insured }: Answers) =>
          insured === true || (typeof length === 'number' && length < 20)
        expect(found?.options.map(o => [o.code, o.count])).toEqual([
          ['kept', all.filter(isKept).length],
          ['broken', all.filter(answers => !isKept(answers)).length],
        ])
      }),
    )
    const measures = listMeasures(PLAN)
    const filled = fill(PLAN, { insured: true }, '2026-11-01')
    expect(readCells(measures, filled, code => PLAN.byCode.get(code), []).at(-1)).toBe(AHEAD)
  })
})

describe('a table of facts', () => {
  it('taken apart and put together anew says the same, of the rows that are left, and goes on with more', () => {
    fc.assert(
      fc.property(
        fc.array(arbitrary, { maxLength: 30 }),
        fc.array(arbitrary, { maxLength: 5 }),
        (all, more) => {
          const table = tableOf(all)
          for (let i = 0; i < all.length; i += 3) table.drop(`${i}`)
          const rows = table.allRows()
          const columns = table.columns.map(column => Column.of(column.measure, column.partsOf(rows)))
          const again = FactTable.of(table.rowsOf(rows), columns)
          expect(summariseTable(again, again.allRows())).toEqual(summariseTable(table, rows))
          expect(again.idsNow()).toEqual(table.idsNow())
          for (const one of [table, again]) fillTable(one, more, 'more')
          expect(summariseTable(again, again.allRows())).toEqual(summariseTable(table, table.allRows()))
        },
      ),
    )
  })
})

describe('summaries', () => {
  it('count what a naive count over all responses counts: options, those asked, blank and not asked', () => {
    fc.assert(
      fc.property(fc.array(arbitrary, { maxLength: 30 }), all => {
        const table = tableOf(all)
        const [hull, work] = summariseTable(table, table.allRows())
        for (const option of hull?.options ?? [])
          expect(option.count).toBe(all.filter(a => a.hull === option.code).length)
        const wooden = all.filter(a => a.hull === 'wood')
        expect(work?.asked).toBe(wooden.length)
        expect(work?.unasked).toBe(all.length - wooden.length)
        expect(work?.blank).toBe(wooden.filter(a => a.work === undefined).length)
        for (const option of work?.options ?? [])
          expect(option.count).toBe(wooden.filter(a => [a.work].flat().includes(option.code)).length)
      }),
    )
  })

  it('count every number once, in the bins of a histogram too', () => {
    fc.assert(
      fc.property(fc.array(arbitrary, { maxLength: 30 }), all => {
        const table = tableOf(all)
        const [, , length] = summariseTable(table, table.allRows())
        const given = all.flatMap(a => (typeof a.length === 'number' ? [a.length] : []))
        expect(length?.numbers?.count ?? 0).toBe(given.length)
        const inBins = length?.numbers?.bins.reduce((sum, bin) => sum + bin.count, 0) ?? 0
        expect(inBins).toBe(given.length)
      }),
    )
  })
})

describe('tables', () => {
  it('a cross table counts and adds up what a naive one does, and drops what was taken out', () => {
    fc.assert(
      fc.property(fc.array(arbitrary, { minLength: 1, maxLength: 30 }), all => {
        const table = tableOf(all)
        table.drop('0')
        const left = all.slice(1)
        const rows = table.allRows()
        const sides = {
          rows: dimensionOf(table, 'hull', rows),
          columns: dimensionOf(table, 'insured', rows),
          layer: null,
        }
        const column = table.columnOf('length')
        if (!sides.rows || !sides.columns || !column) throw new Error('A side is missing.')
        const found = crossTable(
          rows,
          { ...sides, rows: sides.rows, columns: sides.columns },
          { figure: 'sum', column },
        )
        for (const [r, { code: hull }] of sides.rows.headings.entries())
          for (const [c, { code: insured }] of sides.columns.headings.entries()) {
            const inCell = left.filter(a => a.hull === hull && `${a.insured}` === insured)
            const lengths = inCell.flatMap(a => (typeof a.length === 'number' ? [a.length] : []))
            expect(found.layers[0]?.counts[r]?.[c]).toBe(inCell.length)
            const sum = lengths.reduce((cents, n) => cents + Math.round(n * 100), 0) / 100
            expect(found.layers[0]?.cells[r]?.[c]).toBe(lengths.length === 0 ? null : sum)
          }
      }),
    )
  })
})

describe('days', () => {
  it('each is counted once, in spans without a gap', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 730_000, max: 742_000 }), { minLength: 1 }), days => {
        const { spans } = countDays(days)
        expect(spans.reduce((sum, s) => sum + s.count, 0)).toBe(days.length)
        expect(spans.map(s => s.from)).toEqual([...new Set(spans.map(s => s.from))].sort())
      }),
    )
  })
})

/** As answers are: with few digits behind the point. */
const amount = fc
  .tuple(fc.integer({ min: -1e9, max: 1e9 }), fc.integer({ min: 0, max: 4 }))
  .map(([n, digits]) => n / 10 ** digits)

describe('numbers', () => {
  it('sums are exact to the digits that the numbers have', () => {
    expect(sumOf([0.1, 0.2, 0.3])).toBe(0.6)
    expect(sumOf(Array.from({ length: 1000 }, () => 1240.05))).toBe(1_240_050)
  })

  it('quartiles are those of a worked example, and bins have round edges that hold everything', () => {
    expect([0.25, 0.5, 0.75].map(share => quantile([1, 2, 4, 8], share))).toEqual([1.75, 3, 5])
    expect(summariseNumbers([])).toBeNull()
    fc.assert(
      fc.property(fc.array(amount, { minLength: 1 }), numbers => {
        const [min, max] = [Math.min(...numbers), Math.max(...numbers)]
        const edges = binEdges(min, max, false)
        expect(edges[0]).toBeLessThanOrEqual(min)
        expect(edges.at(-1)).toBeGreaterThanOrEqual(max)
        expect(edges.length).toBeLessThanOrEqual(14)
      }),
    )
  })
})
