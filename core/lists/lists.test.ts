import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compile } from '../expressions/compile'
import { ROW_SLOT } from '../expressions/compiled'
import { parse } from '../expressions/parse'
import type { Value } from '../expressions/types'
import { applyEdits } from '../form/edits'
import type { Form } from '../form/definition'
import type { ChoiceList, Row } from '../form/choiceLists'
import { changeEdits, moveRowsEdits } from './changes'
import { compareRows, mergeRows } from './difference'
import { checkIntegrity, linksOf } from './integrity'
import { groupedOptions, narrowingsBy, splitLevels, treeOf } from './levels'
import { indexRows } from './listIndex'
import { compileNarrowing } from './narrow'
import { searchRows } from './searchRows'
import { headProblems, guessColumnKind, readCell, guessRoles, readRows } from './table'

const COASTS = ['north', 'east', 'isles']
const cell = fc.oneof(fc.constantFrom(...COASTS), fc.constantFrom(1, 2, 2.5), fc.constant(null), fc.boolean())
const rowsArbitrary = fc
  .array(
    fc.record({
      coast: cell,
      depth: fc.oneof(fc.integer({ min: 0, max: 5 }), fc.constant(null)),
      open: fc.boolean(),
    }),
    { maxLength: 30 },
  )
  .map(rows => rows.map((r, i): Row => ({ code: `r${i}`, label: `Row ${i % 7}`, ...r })))

describe('narrowing', () => {
  const environment = {
    slotOf: (name: string) => ({ row: ROW_SLOT, coast: 2, many: 3, draught: 4 })[name],
    memberOf: () => undefined,
  }
  const rules = [
    'row.coast = coast',
    'coast = row.coast',
    'list contains(many, row.coast)',
    'row.coast = coast and row.depth > draught',
    'row.coast = coast and row.open = true and list contains(many, row.depth)',
    'row.depth >= draught or row.coast = coast',
    'row.coast = coast and row.coast != null',
  ]
  it('by its index leaves what trying every row leaves, first and again', () => {
    fc.assert(
      fc.property(
        rowsArbitrary,
        fc.constantFrom(...rules),
        fc.array(fc.tuple(cell, fc.array(cell, { maxLength: 3 }), fc.integer({ min: 0, max: 4 })), {
          minLength: 1,
          maxLength: 4,
        }),
        (rows, rule, parents) => {
          const expr = parse(rule)
          const index = indexRows(rows)
          const narrow = compileNarrowing(expr, index, environment)
          const run = compile(expr, environment)
          for (const [coast, many, draught] of [...parents, ...parents]) {
            const values: Value[] = ['2026-11-25', null, coast, many.length === 0 ? null : many, draught]
            const naive = rows
              .filter((_, i) => run(values.with(ROW_SLOT, index.context(i))) === true)
              .map(r => r.code)
            expect([...narrow(values)]).toEqual(naive)
          }
        },
      ),
      { numRuns: 400 },
    )
  })
  it('searching finds every row on offer that holds all words, whatever the case and accents', () => {
    const rows: Row[] = [
      { code: 'a', label: 'Tern Quay' },
      { code: 'b', label: 'Västra Tern' },
      { code: 'c', label: 'Osier Creek' },
      { code: 'd', label: 'A quay for terns' },
    ]
    expect(searchRows(indexRows(rows), null, 'tern', 9).rows.map(r => r.code)).toEqual(['a', 'b', 'd'])
    expect(searchRows(indexRows(rows), null, 'VASTRA', 9).rows.map(r => r.code)).toEqual(['b'])
    expect(searchRows(indexRows(rows), new Set(['d', 'c']), 'quay tern', 9)).toEqual({
      rows: [rows[3]],
      count: 1,
    })
    expect(searchRows(indexRows(rows), null, '', 2)).toEqual({ rows: rows.slice(0, 2), count: 4 })
  })
})

describe('tables', () => {
  it('are read with their codes, types and leading zeros; what does not fit is said with its row', () => {
    const heads = ['Code', 'Harbour', 'Depth', 'Postcode', 'Open', 'Since', 'Retired']
    const roles = guessRoles(heads, [])
    expect(roles).toEqual([
      'code',
      'label',
      { column: 'depth' },
      { column: 'postcode' },
      { column: 'open' },
      { column: 'since' },
      'retired',
    ])
    const lines = [
      ['sm', 'Saltmarsh', '3,2', '00123', 'yes', '2020-01-01', ''],
      ['', 'Tern Quay', '2.1', '00456', 'no', '2021-05-01', 'x'],
      ['sm', 'Twice', '1', '', '', '', ''],
      ['', '', '', '', '', '', ''],
      ['z', 'Odd', 'deep', '', '', '', ''],
    ]
    const kinds = Object.fromEntries(
      roles.flatMap((r, i) =>
        typeof r === 'object' ? [[r.column, guessColumnKind(lines.slice(0, 3).map(l => l[i] ?? ''))]] : [],
      ),
    )
    expect(kinds).toEqual({ depth: 'number', postcode: 'text', open: 'yesNo', since: 'date' })
    const read = readRows(lines, roles, kinds)
    expect(read.rows).toEqual([
      { code: 'sm', label: 'Saltmarsh', depth: 3.2, postcode: '00123', open: true, since: '2020-01-01' },
      {
        code: 'tern_quay',
        label: 'Tern Quay',
        depth: 2.1,
        postcode: '00456',
        open: false,
        since: '2021-05-01',
        retired: true,
      },
      { code: 'z', label: 'Odd' },
    ])
    expect(read.problems.map(p => p.row)).toEqual([4, 6])
    expect(readCell('12 500,50', 'number')).toBe(12500.5)
    expect(headProblems(['Place', '', 'place'], [['a', 'b', 'c']])).toHaveLength(2)
  })
})

describe('tables', () => {
  it('a difference tells what merging then does: nothing is left to tell afterwards', () => {
    const table = fc.uniqueArray(
      fc.record({
        code: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
        label: fc.constantFrom('A', 'B', 'C'),
        coast: fc.constantFrom(...COASTS),
      }),
      { selector: r => r.code },
    )
    fc.assert(
      fc.property(
        table,
        table,
        fc.constantFrom('keep', 'retire', 'remove'),
        (before: Row[], after: Row[], missing) => {
          const marked = before.map((r): Row => ({ ...r, mark: 'note', remark: 'ours' }))
          const difference = compareRows(marked, after)
          expect(
            difference.added.length +
              difference.changed.length +
              difference.clashing.length +
              difference.same,
          ).toBe(after.length)
          const rows = mergeRows(marked, after, missing)
          const again = compareRows(rows, after)
          expect([again.added, again.changed, again.clashing, again.reordered]).toEqual([[], [], [], false])
          expect(
            rows
              .filter(r => before.some(b => b.code === r.code) && after.some(a => a.code === r.code))
              .every(r => r.mark === 'note' && r.remark === 'ours'),
          ).toBe(true)
          if (missing === 'retire')
            expect(
              rows
                .filter(r => r.retired)
                .map(r => r.code)
                .sort(),
            ).toEqual(difference.missing.map(r => r.code).sort())
        },
      ),
    )
  })
})

describe('tables', () => {
  it('changes of rows are edits that are undone to the byte; rows that have moved meanwhile are left alone', () => {
    fc.assert(
      fc.property(
        rowsArbitrary,
        fc.dictionary(fc.nat(29).map(String), fc.option(fc.constantFrom('x', 'y'))),
        (rows, wanted) => {
          const form: Form = { tobbin: 2, code: 'f', title: 'F', lists: [{ code: 'l', rows }], sections: [] }
          const changes = new Map(
            Object.entries(wanted).map(
              ([at, label]) => [Number(at), label === null ? null : { code: `n${at}`, label }] as const,
            ),
          )
          const { form: next, inverses } = applyEdits(form, changeEdits('list/l', rows, changes))
          expect(next.lists?.[0]?.rows).toEqual(
            rows.flatMap((r, i) => (changes.has(i) ? (changes.get(i) ?? []) : [r])),
          )
          expect(JSON.stringify(applyEdits(next, inverses).form)).toBe(JSON.stringify(form))
          const [first] = changeEdits('list/l', rows, changes)
          if (first?.do === 'splice' && first.remove > 0)
            expect(() =>
              applyEdits({ ...form, lists: [{ code: 'l', rows: [{ code: 'other', label: '' }, ...rows] }] }, [
                first,
              ]),
            ).toThrow(/moved/)
        },
      ),
    )
    const rows: Row[] = ['a', 'b', 'c', 'd'].map(code => ({ code, label: code }))
    const moved = (positions: number[], by: 1 | -1) =>
      applyEdits(
        { tobbin: 2, code: 'f', title: 'F', lists: [{ code: 'l', rows }], sections: [] },
        moveRowsEdits('list/l', rows, positions, by),
      )
        .form.lists?.[0]?.rows.map(r => r.code)
        .join('')
    expect([moved([1, 2], -1), moved([1, 2], 1), moved([0], -1), moved([3], 1)]).toEqual([
      'bcad',
      'adbc',
      'abcd',
      'abcd',
    ])
  })
})

const LISTS: ChoiceList[] = [
  {
    code: 'coasts',
    rows: [
      { code: 'north', label: 'North' },
      { code: 'east', label: 'East' },
      { code: 'isles', label: 'Isles' },
    ],
  },
  {
    code: 'harbours',
    columns: ['coast'],
    rows: [
      { code: 'sm', label: 'Saltmarsh', coast: 'north' },
      { code: 'tq', label: 'Tern Quay', coast: 'North' },
      { code: 'os', label: 'Osier', coast: 'east' },
      { code: 'sm', label: 'Again', coast: 'north' },
      { code: 'OS', label: 'Osier', coast: 'east' },
      { code: 'gone', label: 'Gone', coast: 'nowhere', retired: true },
    ],
  },
  {
    code: 'pontoons',
    columns: ['harbour'],
    rows: [
      { code: 'p1', label: 'Pontoon 1', harbour: 'sm' },
      { code: 'p2', label: 'Pontoon 1', harbour: 'os' },
    ],
  },
]

describe('integrity', () => {
  it('finds orphans, childless parents, doubles and look-alikes, with their rows; mends leave none of what they mend', () => {
    expect(linksOf(LISTS)).toEqual([
      { list: 'harbours', column: 'coast', parent: 'coasts' },
      { list: 'pontoons', column: 'harbour', parent: 'harbours' },
    ])
    const found = checkIntegrity(LISTS)
    expect(found.map(p => [p.kind, p.list, p.rows])).toEqual([
      ['duplicate-row', 'harbours', [3]],
      ['similar-codes', 'harbours', [4]],
      ['double-label', 'harbours', [4]],
      ['orphan-row', 'harbours', [1]],
      ['childless-parent', 'coasts', [2]],
      ['childless-parent', 'harbours', [1, 4]],
    ])
    const form: Form = { tobbin: 2, code: 'f', title: 'F', lists: LISTS, sections: [] }
    const mended = found
      .filter(p => p.mend)
      .reduceRight(
        (done, p) =>
          applyEdits(
            done,
            changeEdits(
              `list/${p.list}`,
              done.lists?.find(l => l.code === p.list)?.rows ?? [],
              new Map(p.mend?.rows.map(r => [r.at, r.row])),
            ),
          ).form,
        form,
      )
    expect(
      checkIntegrity(mended.lists ?? [])
        .map(p => p.kind)
        .filter(k => k === 'duplicate-row' || k === 'orphan-row'),
    ).toEqual([])
  })
})

describe('integrity', () => {
  it('a flat table becomes linked lists that hold the same, and the tree counts them', () => {
    const flat: ChoiceList = {
      code: 'pontoons',
      columns: ['coast', 'harbour', 'metres'],
      rows: [
        { code: 'a', label: 'A', coast: 'North', harbour: 'Saltmarsh', metres: 9 },
        { code: 'b', label: 'B', coast: 'North', harbour: 'Saltmarsh', metres: 12 },
        { code: 'c', label: 'C', coast: 'North', harbour: 'Tern Quay', metres: 9 },
        { code: 'd', label: 'D', coast: 'East', harbour: 'Saltmarsh', metres: 9 },
      ],
    }
    const [coasts, harbours, pontoons] = splitLevels(flat, ['coast', 'harbour'], new Set(['pontoons']))
    if (!coasts || !harbours || !pontoons) throw new Error('A level is missing.')
    expect(coasts.rows.map(r => r.label)).toEqual(['North', 'East'])
    expect(harbours.rows.map(r => [r.code, r.label, r.coast])).toEqual([
      ['saltmarsh', 'Saltmarsh', 'north'],
      ['tern_quay', 'Tern Quay', 'north'],
      ['saltmarsh_2', 'Saltmarsh', 'east'],
    ])
    expect(pontoons.columns).toEqual(['harbour', 'metres'])
    expect(pontoons.rows.map(r => [r.code, r.harbour, r.metres])).toEqual([
      ['a', 'saltmarsh', 9],
      ['b', 'saltmarsh', 12],
      ['c', 'tern_quay', 9],
      ['d', 'saltmarsh_2', 9],
    ])
    const lists = [coasts, harbours, pontoons]
    const tree = treeOf(lists, coasts, linksOf(lists), 10)
    expect(tree.map(b => [b.row.label, b.count, b.below.map(h => [h.row.label, h.count])])).toEqual([
      [
        'North',
        2,
        [
          ['Saltmarsh', 2],
          ['Tern Quay', 1],
        ],
      ],
      ['East', 1, [['Saltmarsh', 1]]],
    ])
    expect(
      narrowingsBy(pontoons, { code: 'harbour', type: 'choice', codes: harbours.rows.map(r => r.code) })[0],
    ).toMatchObject({ column: 'harbour', rule: 'row.harbour = harbour', matching: 3, of: 3 })
    expect(groupedOptions('North:\n• Saltmarsh\nTern Quay\nEast\n  Osier\n')).toEqual([
      { head: 'North', labels: ['Saltmarsh', 'Tern Quay'] },
      { head: 'East', labels: ['Osier'] },
    ])
  })
})
