import { evaluate } from 'feelin'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkTypes, type Scope } from './check'
import { compile } from './compile'
import {
  durationBetween,
  dateTimeText,
  durationFrom,
  durationText,
  FIRST_DAY,
  isoFromDay,
  LAST_DAY,
  monthsBetween,
  moveDate,
  readableDuration,
  timeText,
} from './dates'
import { modulo, rounded } from './decimal'
import { parse } from './parse'
import { print } from './print'
import { sentenceOf, sentenceText } from './sentence'
import { namesIn } from './tree'
import { BOOLEAN, DATE, NUMBER, TEXT, type Context, type Value, type ValueType } from './types'

const engine: ValueType = {
  kind: 'context',
  members: new Map([
    ['power', NUMBER],
    [
      'fuel',
      {
        kind: 'code',
        choices: new Map([
          ['d', 'Diesel'],
          ['e', 'Electric'],
        ]),
      },
    ],
    ['born', DATE],
  ]),
}
const TYPES: Record<string, ValueType> = {
  engines: { kind: 'list', of: engine },
  n: NUMBER,
  word: TEXT,
  day: DATE,
  works: {
    kind: 'list',
    of: {
      kind: 'code',
      choices: new Map([
        ['a', 'A'],
        ['b', 'B'],
      ]),
    },
  },
}
const NAMES = Object.keys(TYPES)
const scope: Scope = {
  lookup: name => (TYPES[name] ? { type: TYPES[name], later: false } : undefined),
  names: () => NAMES,
}
const run = (text: string, values: Record<string, Value> = {}) =>
  compile(parse(text), name => (NAMES.includes(name) ? NAMES.indexOf(name) + 2 : undefined))([
    '2026-11-24',
    null,
    ...NAMES.map(name => values[name] ?? null),
  ])
const problems = (text: string, wanted: ValueType | null = null) =>
  checkTypes(parse(text), scope, wanted).problems.map(p => `${p.code}: ${text.slice(p.from, p.to)}`)

const entries = fc.array(
  fc.record({ power: fc.integer({ min: 0, max: 9 }), fuel: fc.constantFrom('d', 'e') }),
  { maxLength: 4 },
)
const overEntries = fc
  .tuple(fc.nat(9), fc.constantFrom('d', 'e'))
  .chain(([n, fuel]) =>
    fc.constantFrom(
      `count(engines[power > ${n}])`,
      `some e in engines satisfies e.power > ${n}`,
      `every e in engines satisfies e.fuel = "${fuel}"`,
      `engines[fuel = "${fuel}"].power`,
      `sum(engines.power)`,
      `engines[1].power`,
      `engines[-1].fuel`,
      `some e in engines satisfies e.power > ${n} and e.fuel = "${fuel}"`,
      `count(engines[power > ${n} and fuel = "${fuel}"]) > 1`,
      `max(engines.power)`,
      `list contains(engines.fuel, "${fuel}")`,
      `every e in engines satisfies (some f in engines satisfies f.power >= e.power)`,
    ),
  )

describe('entries', () => {
  it('paths, filters and quantifiers agree with an independent FEEL interpreter', () => {
    fc.assert(
      fc.property(overEntries, entries, (text, engines) => {
        const list: Context[] = engines
        expect(run(text, { engines: list })).toEqual(evaluate(text, { engines }).value)
      }),
      { numRuns: 1500 },
    )
  })

  it('print → parse → print is the identity, and every one has a sentence', () => {
    const more = fc.constantFrom(
      '(day - @"2026-01-01").days > 3',
      'day + @"P1Y2M" < today()',
      'n * @"PT36H" > @"P2D"',
      '@"10:30" < @"11:00:00"',
      '@"2026-05-01T10:30"',
      'years and months duration(day, today()).years',
      'if some e in engines satisfies e.power > 1 then 1 else 2',
      'word + "x" = "yx"',
    )
    fc.assert(
      fc.property(fc.oneof(overEntries, more), text => {
        const printed = print(parse(text))
        expect(print(parse(printed))).toBe(printed)
        expect(
          sentenceText(sentenceOf(parse(text), { question: c => c, choice: () => undefined })).length,
        ).toBeGreaterThan(2)
      }),
    )
  })

  it('a row’s columns are told as columns, not as the questions of that code', () => {
    const told = (text: string) =>
      sentenceText(
        sentenceOf(parse(text), {
          question: c => ({ coast: 'Which coast?', harbour: 'Harbour' })[c],
          choice: () => undefined,
        }),
      )
    expect([told('row.coast = coast'), told('harbour.row.depth < 3')]).toEqual([
      'the row’s coast is Which coast?',
      'Harbour’s depth is less than 3',
    ])
  })

  it('names what an expression uses, and not what it binds itself', () => {
    expect(namesIn(parse('some e in engines satisfies e.power > n and e.fuel = word'))).toEqual([
      'engines',
      'n',
      'word',
    ])
    expect(namesIn(parse('row.coast = day'))).toEqual(['day'])
  })
})

describe('entries', () => {
  it('types members, filters and bound names, each error at its place', () => {
    expect(problems('engines.powr')).toEqual(['unknown-name: powr'])
    expect(problems('some e in engines satisfies e.fuel = "x"', BOOLEAN)).toEqual(['unknown-code: "x"'])
    expect(problems('engines[power > "a"]')).toEqual(['wrong-type: power > "a"'])
    expect(problems('n.power')).toEqual(['unknown-name: power'])
    expect(problems('some e in n satisfies true')).toEqual(['wrong-type: n'])
    expect(problems('day - day > 3', BOOLEAN)).toEqual(['wrong-type: day - day > 3'])
    expect(problems('(day - day).days > 3 and day + @"P1M" > @"2026-01-01"', BOOLEAN)).toEqual([])
    expect(problems('list contains(works, "c")', BOOLEAN)).toEqual(['unknown-code: "c"'])
    expect(problems('matches(word, "[")', BOOLEAN)).toEqual(['wrong-type: "["'])
    expect(problems('"x"', { kind: 'code', choices: new Map([['a', 'A']]) })).toEqual(['unknown-code: "x"'])
  })
})

describe('times', () => {
  const day = fc.integer({ min: FIRST_DAY + 800_000, max: LAST_DAY - 800_000 }).map(isoFromDay)
  it('days between dates and days added go both ways', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: -20_000, max: 20_000 }), (from, n) => {
        const to = moveDate(from, { unit: 'seconds', amount: n * 86_400 })
        expect(to).not.toBeNull()
        expect(durationBetween(from, to ?? '')).toEqual({ unit: 'seconds', amount: n * 86_400 })
      }),
    )
  })
  it('months between two dates, added, never pass the second, and one more does', () => {
    fc.assert(
      fc.property(day, day, (a, b) => {
        const [from, to] = a <= b ? [a, b] : [b, a]
        const months = monthsBetween(from, to)?.amount ?? 0
        // From the first of the month, so that no day is missing in a shorter month.
        const base = `${from.slice(0, 8)}01`
        const shift = (n: number) =>
          `${moveDate(base, { unit: 'months', amount: n })?.slice(0, 8)}${from.slice(8)}`
        expect(shift(months) <= to).toBe(true)
        expect(shift(months + 1) > to).toBe(true)
      }),
    )
    expect(moveDate('2026-01-31', { unit: 'months', amount: 1 })).toBe('2026-02-28')
    expect(run('years and months duration(@"2008-02-29", @"2026-02-28").years')).toBe(17)
  })
  it('durations are read and written; nonsense is none', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<'months' | 'seconds'>('months', 'seconds'),
        fc.integer({ min: -1e7, max: 1e7 }),
        (unit, amount) => {
          expect(durationFrom(durationText({ unit, amount }))).toEqual({ unit, amount })
        },
      ),
    )
    expect(['P', 'PT', 'P1', '1D', 'P1DT', 'P1Y2D'].map(durationFrom)).toEqual([
      null,
      null,
      null,
      null,
      null,
      null,
    ])
    expect([
      timeText('24:00'),
      timeText('9:30'),
      timeText('09:30'),
      dateTimeText('2026-02-30T10:00'),
      dateTimeText('2026-02-28T10:00'),
    ]).toEqual([null, null, '09:30:00', null, '2026-02-28T10:00:00'])
    expect(readableDuration({ unit: 'months', amount: 27 })).toBe('2 years 3 months')
  })
})

describe('functions', () => {
  it('mean what the standard says', () => {
    const cases: [string, Value][] = [
      ['substring("foobar", 3)', 'obar'],
      ['substring("foobar", 3, 3)', 'oba'],
      ['substring("foobar", -2, 1)', 'a'],
      ['string join(["a", "b"], "-")', 'a-b'],
      ['string(1.50)', '1.5'],
      ['number("12.5")', 12.5],
      ['number("x")', null],
      ['decimal(2.345, 2)', 2.34],
      ['round half up(2.345, 2)', 2.35],
      ['round down(2.349, 2)', 2.34],
      ['modulo(-12, 5)', 3],
      ['modulo(12, -5)', -3],
      ['modulo(1, 0)', null],
      ['all([true, null])', null],
      ['any([false, true, null])', true],
      ['distinct values([1, 2, 1])', [1, 2]],
      ['date(2026, 2, 28)', '2026-02-28'],
      ['date(2026, 2, 30)', null],
      ['date("2026-05-01")', '2026-05-01'],
      ['matches("WR-101", "^[A-Z]+-")', true],
      ['count([])', 0],
      ['sum([])', null],
      ['@"2026-05-01".weekday', 5],
      ['@"2026-05-01".year', 2026],
      ['@"10:30:00".minute', 30],
      ['duration("P1DT2H").hours', 2],
      ['(@"2026-05-04" - @"2026-05-01").days', 3],
      ['@"P1D" * 2 = @"P2D"', true],
      ['@"P4D" / @"P2D"', 2],
    ]
    expect(cases.map(([text]) => [text, run(text)])).toEqual(cases)
    expect([modulo(7.5, 2), rounded(1, 99, 'up')]).toEqual([1.5, null])
  })
  it('a pattern takes time that grows with the text only', () => {
    expect(run('matches(word, "^(a+)+$")', { word: `${'a'.repeat(5000)}!` })).toBe(false)
  })
})
