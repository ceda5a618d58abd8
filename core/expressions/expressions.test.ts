import { evaluate } from 'feelin'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { add, divide, multiply, numberFromText, numberText, subtract } from './decimal'
import { checkTypes, type Scope } from './check'
import { compile } from './compile'
import { dayNumber, isoFromDay, FIRST_DAY, LAST_DAY } from './dates'
import { ExpressionError, parse } from './parse'
import { expressionOf, type PointedKind } from './pointing'
import { conditionOf } from './pointed'
import { print } from './print'
import { replaceParts } from './replace'
import { sentenceOf, sentenceText } from './sentence'
import { BOOLEAN, DATE, NUMBER, TEXT, type Value, type ValueType } from './types'
import { condition } from '../../tests/support/forms'

const ASKED = [
  { code: 'yes', kind: 'yesNo' },
  { code: 'hull', kind: 'choice' },
  { code: 'wood', kind: 'choice' },
  { code: 'n', kind: 'integer' },
  { code: 'm', kind: 'integer' },
  { code: 'word', kind: 'text' },
] as const
const codes = new Map([
  ['a', 'Ash'],
  ['b', 'Beech'],
  ['c', 'Cedar'],
])
const TYPES: Record<string, ValueType> = {
  yes: BOOLEAN,
  hull: { kind: 'code', choices: codes },
  wood: { kind: 'code', choices: codes },
  n: NUMBER,
  m: NUMBER,
  word: TEXT,
  day: DATE,
}
const scope: Scope = {
  lookup: name => (TYPES[name] ? { type: TYPES[name], later: false } : undefined),
  names: () => Object.keys(TYPES),
}
const NAMES = Object.keys(TYPES)

/** Numbers, calls and conditions beyond those of the random forms. */
const number: fc.Arbitrary<string> = fc.letrec<{ n: string }>(tie => ({
  n: fc.oneof(
    { maxDepth: 3, depthIdentifier: 'n' },
    fc.integer({ min: -50, max: 50 }).map(String),
    fc.constantFrom('n', 'm', '0.5', '2.25'),
    fc.tuple(tie('n'), fc.constantFrom('+', '-', '*'), tie('n')).map(([a, op, b]) => `(${a}) ${op} (${b})`),
    tie('n').map(a => `-(${a})`),
    tie('n').map(a => `abs(${a})`),
    tie('n').map(a => `floor(${a})`),
    fc.tuple(tie('n'), tie('n')).map(([a, b]) => `max(${a}, ${b})`),
    fc.constant('string length(word)'),
  ),
})).n
const expression = fc.oneof(
  condition(ASKED, 3),
  fc
    .tuple(number, fc.constantFrom('<', '<=', '>', '>=', '=', '!='), number)
    .map(([a, op, b]) => `(${a}) ${op} (${b})`),
  fc.tuple(number, fc.nat(9), fc.nat(9)).map(([a, b, c]) => `(${a}) between ${b} and ${b + c}`),
  fc
    .tuple(fc.constantFrom('contains', 'starts with', 'ends with'), fc.constantFrom('o', 'ak', ''))
    .map(([f, t]) => `${f}(word, "${t}")`),
)
/** Ends the wrong way round: the other interpreter swaps them, the standard does not. */
const isReversed = (text: string) =>
  [...text.matchAll(/(?:between |\[)(\d)(?: and |\.\.)(\d)/g)].some(m => Number(m[1]) > Number(m[2]))
const blankable = <T>(a: fc.Arbitrary<T>) => fc.option(a, { nil: null })
const answers = fc.record({
  yes: blankable(fc.boolean()),
  hull: blankable(fc.constantFrom('a', 'b', 'c')),
  wood: blankable(fc.constantFrom('a', 'b', 'c')),
  n: blankable(fc.integer({ min: -5, max: 5 })),
  m: blankable(fc.integer({ min: -5, max: 5 })),
  word: blankable(fc.constantFrom('oak', 'elm', 'yew')),
  day: fc.constant(null),
})
const run = (text: string, values: Record<string, Value>) =>
  compile(
    parse(text),
    name => NAMES.indexOf(name) + 1,
  )(['2026-11-24', ...NAMES.map(name => values[name] ?? null)])

describe('evaluation', () => {
  it('agrees with an independent FEEL interpreter', () => {
    fc.assert(
      fc.property(
        expression.filter(text => !isReversed(text)),
        answers,
        (text, values) => {
          // The interpreter calculates in binary fractions and reads `x in […] and y` loosely: the text is printed with brackets.
          expect(run(text, values)).toEqual(evaluate(print(parse(text)), values).value)
        },
      ),
      { numRuns: 3000 },
    )
  })
  it('calculates in decimals, exactly', () => {
    const cents = fc.integer({ min: -1e12, max: 1e12 })
    const text = (n: number) =>
      `${n < 0 ? '-' : ''}${Math.floor(Math.abs(n) / 100)}.${String(Math.abs(n) % 100).padStart(2, '0')}`
    const value = (n: number) => numberFromText(text(n)) ?? 0
    fc.assert(
      fc.property(cents, cents, (a, b) => {
        const same = (got: ReturnType<typeof add>, wanted: ReturnType<typeof add>) =>
          expect(got === null ? null : numberText(got)).toBe(wanted === null ? null : numberText(wanted))
        same(add(value(a), value(b)), value(a + b))
        same(subtract(value(a), value(b)), value(a - b))
        const product = BigInt(a) * BigInt(b)
        const digits = (product < 0n ? -product : product).toString().padStart(5, '0')
        same(
          multiply(value(a), value(b)),
          numberFromText(`${product < 0n ? '-' : ''}${digits.slice(0, -4)}.${digits.slice(-4)}`),
        )
      }),
    )
    expect(run('0.1 + 0.2 = 0.3', {})).toBe(true)
    expect(divide(1, 0)).toBeNull()
  })
  it('keeps calendar dates: day numbers go both ways', () => {
    fc.assert(
      fc.property(fc.integer({ min: FIRST_DAY, max: LAST_DAY }), day => {
        expect(dayNumber(isoFromDay(day))).toBe(day)
      }),
    )
    expect(['2026-02-30', '2026-13-01', '26-01-01', '2026-1-1', '1900-02-29', ''].map(dayNumber)).toEqual([
      null,
      null,
      null,
      null,
      null,
      null,
    ])
  })
})

describe('the builder', () => {
  it('shows conditions on entries, where nothing but the entry is asked, and gives the same back', () => {
    const kindOf = (name: string, group?: string): PointedKind | undefined => {
      if (group === undefined) return name === 'g' ? 'entries' : undefined
      return name === 'day' ? 'date' : (TYPES[name]?.kind as PointedKind | undefined)
    }
    const ofEntry = (text: string) =>
      replaceParts(parse(text), n =>
        n.kind === 'name' ? { kind: 'path', of: { ...n, name: 'e' }, member: n.name, from: 0, to: 0 } : null,
      )
    let shown = 0
    fc.assert(
      fc.property(expression, fc.constantFrom('every', 'some'), fc.boolean(), (text, mode, isOther) => {
        const inner = `${print(ofEntry(text))}${isOther ? ' and other = 1' : ''}`
        const tree = parse(`${mode} e in g satisfies ${inner}`)
        const condition = conditionOf(tree, kindOf)
        const back = expressionOf(condition)
        expect(back && print(back)).toBe(print(tree))
        if (isOther) expect(condition.kind).toBe('text')
        else if (condition.kind === 'entries') shown += 1
      }),
      { numRuns: 1000 },
    )
    expect(shown).toBeGreaterThan(200)
  })
})

describe('text and tree', () => {
  it('print → parse → print is the identity, and the meaning stays', () => {
    fc.assert(
      fc.property(expression, answers, (text, values) => {
        const printed = print(parse(text))
        expect(print(parse(printed))).toBe(printed)
        expect(run(printed, values)).toEqual(run(text, values))
      }),
      { numRuns: 2000 },
    )
  })

  it('the builder shows every condition and gives the same back', () => {
    const kindOf = (name: string): PointedKind | undefined =>
      name === 'day' ? 'date' : (TYPES[name]?.kind as PointedKind | undefined)
    fc.assert(
      fc.property(expression, text => {
        const tree = parse(text)
        const back = expressionOf(conditionOf(tree, kindOf))
        expect(back && print(back)).toBe(print(tree))
      }),
      { numRuns: 2000 },
    )
  })

  it('every expression has a sentence', () => {
    fc.assert(
      fc.property(expression, text => {
        expect(
          sentenceText(sentenceOf(parse(text), { question: c => c, choice: () => undefined })).trim(),
        ).not.toBe('')
      }),
    )
    const names = {
      question: (c: string) => ({ hull: 'Hull material' })[c],
      choice: (_: string, c: string) => codes.get(c),
    }
    expect(sentenceText(sentenceOf(parse('hull in ["a", "b"]'), names))).toBe('Hull material is Ash or Beech')
  })
})

describe('text and tree', () => {
  it('any text gives a tree or an error with a place inside it', () => {
    const piece = fc.constantFrom(
      'n',
      'and',
      'or',
      'not',
      '(',
      ')',
      '[',
      ']',
      '=',
      '==',
      '<',
      '..',
      ',',
      '"a"',
      '"',
      '@',
      '@"2026-02-30"',
      '1',
      '1.',
      'in',
      'between',
      'if',
      'then',
      'else',
      '-',
      '**',
      'null',
      '“',
      '\\',
      'count',
      '§',
    )
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(piece, { maxLength: 12 }).map(p => p.join(' ')),
        ),
        text => {
          try {
            expect(parse(text)).toBeDefined()
          } catch (error) {
            expect(error).toBeInstanceOf(ExpressionError)
            if (!(error instanceof ExpressionError)) return
            expect(error.from).toBeGreaterThanOrEqual(0)
            expect(error.to).toBeLessThanOrEqual(text.length)
          }
        },
      ),
      { numRuns: 2000 },
    )
    expect(() => parse('('.repeat(5000))).toThrow(ExpressionError)
    expect(() => parse('-'.repeat(5000) + '1')).toThrow(ExpressionError)
  })
})

describe('types', () => {
  it('names what is wrong, where, and the nearest right spelling', () => {
    const problems = (text: string) =>
      checkTypes(parse(text), scope, BOOLEAN).problems.map(p => [p.code, text.slice(p.from, p.to), p.instead])
    expect(problems('hul = "a"')).toEqual([['unknown-name', 'hul', 'hull']])
    expect(problems('hull = "Ash"')).toEqual([['label-for-code', '"Ash"', '"a"']])
    expect(problems('hull in ["a", "x"]')).toEqual([['unknown-code', '"x"', null]])
    expect(problems('n = "many"')).toEqual([['wrong-type', 'n = "many"', null]])
    expect(problems('n < word and n + 1')).toEqual([
      ['wrong-type', 'n < word', null],
      ['wrong-type', 'n + 1', null],
    ])
    expect(problems('hull > "a"')).toEqual([['wrong-type', 'hull > "a"', null]])
    expect(problems('lenght(word) > 1')[0]?.[0]).toBe('unknown-function')
    expect(problems('day < @"2026-01-01" and yes and hull = wood')).toEqual([])
  })
})
