import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkTypes, type Scope } from './check'
import { compile } from './compile'
import { dateTimeText, dayNumber, isDuration, isoFromDay, timeText } from './dates'
import { isNumber } from './decimal'
import { FUNCTIONS } from './functions'
import { nearest } from './near'
import { oppositeCondition } from './opposite'
import { parse } from './parse'
import { print } from './print'
import { childrenOf, nodesOf } from './tree'
import {
  BOOLEAN,
  DATE,
  DATE_TIME,
  NUMBER,
  TEXT,
  TIME,
  type Context,
  type Value,
  type ValueType,
} from './types'
import { replaceParts } from './replace'

const choices = new Map([
  ['a', 'A'],
  ['b', 'B'],
])
const guest: ValueType = {
  kind: 'context',
  members: new Map<string, ValueType>([
    ['age', NUMBER],
    ['meal', { kind: 'code', choices }],
  ]),
}
const TYPES: Record<string, ValueType> = {
  yes: BOOLEAN,
  n: NUMBER,
  m: NUMBER,
  word: TEXT,
  day: DATE,
  at: TIME,
  when: DATE_TIME,
  pick: { kind: 'code', choices },
  works: { kind: 'list', of: { kind: 'code', choices } },
  guests: { kind: 'list', of: guest },
}
const NAMES = Object.keys(TYPES)
const scope: Scope = {
  lookup: name => (TYPES[name] ? { type: TYPES[name], later: false } : undefined),
  names: () => NAMES,
}
const compiled = (text: string) =>
  compile(parse(text), name => (NAMES.includes(name) ? NAMES.indexOf(name) + 2 : undefined))

const value: Record<string, fc.Arbitrary<Value>> = {
  yes: fc.boolean(),
  n: fc.integer({ min: -5, max: 40 }),
  m: fc.integer({ min: -3, max: 3 }),
  word: fc.constantFrom('oak', 'elm tree', 'x'),
  day: fc.integer({ min: 18_000, max: 22_000 }).map(isoFromDay),
  at: fc.constantFrom('08:00:00', '17:30:00'),
  when: fc.constantFrom('2026-05-01T10:30:00', '2024-02-29T00:00:00'),
  pick: fc.constantFrom('a', 'b'),
  works: fc.subarray(['a', 'b'], { minLength: 1 }),
  guests: fc.array(
    fc.record({
      age: fc.option(fc.integer({ min: 0, max: 20 })),
      meal: fc.option(fc.constantFrom('a', 'b')),
    }) as fc.Arbitrary<Context>,
    { maxLength: 3 },
  ),
}
const values = fc
  .tuple(...NAMES.map(name => fc.option(value[name] ?? fc.constant(null))))
  .map((all): Value[] => ['2026-11-24', null, ...all])

/** Expressions of all kinds put together at random: many are of no type, and the others are of the type that is said. */
const { expression } = fc.letrec<{ expression: string }>(tie => ({
  expression: fc.oneof(
    { depthSize: 'medium', withCrossShrink: true },
    fc.constantFrom(
      ...NAMES,
      '1',
      '2.5',
      '"a"',
      '"oak"',
      'true',
      'null',
      '@"2026-05-01"',
      '@"12:00:00"',
      '@"P3D"',
      '@"P1Y"',
      'today()',
      '["a", "b"]',
      'guests.age',
      'guests[1].age',
      'guests[age > 3]',
    ),
    fc
      .tuple(
        tie('expression'),
        fc.constantFrom('+', '-', '*', '/', '**', '=', '!=', '<', '>=', 'and', 'or', 'in'),
        tie('expression'),
      )
      .map(([a, op, b]) => (op === 'in' ? `(${a} in [${b}, ${a}])` : `(${a} ${op} ${b})`)),
    fc
      .tuple(tie('expression'), tie('expression'), tie('expression'))
      .chain(([a, b, c]) =>
        fc.constantFrom(
          `(if ${a} then ${b} else ${c})`,
          `(${a} between ${b} and ${c})`,
          `(${a} in [${b}..${c}])`,
        ),
      ),
    fc
      .tuple(fc.constantFrom(...FUNCTIONS.keys()), fc.array(tie('expression'), { maxLength: 2 }))
      .map(([f, args]) => `${f}(${args.join(', ')})`),
    fc
      .tuple(tie('expression'), fc.constantFrom('days', 'years', 'year', 'weekday', 'age', 'meal'))
      .map(([a, member]) => `(${a}).${member}`),
    fc
      .tuple(
        fc.constantFrom('some', 'every'),
        fc.constantFrom('guests', 'works', 'guests.age'),
        tie('expression'),
      )
      .map(([mode, list, test]) => `(${mode} x in ${list} satisfies ${test})`),
    tie('expression').map(a => `not(${a})`),
  ),
}))

const isText = (v: Value) => typeof v === 'string'
const isTextThat = (v: Value, holds: (text: string) => boolean) => typeof v === 'string' && holds(v)
const IS_OF_KIND: Readonly<Record<ValueType['kind'], (v: Value) => boolean>> = {
  number: isNumber,
  boolean: v => typeof v === 'boolean',
  text: isText,
  code: isText,
  date: v => isTextThat(v, t => dayNumber(t) !== null),
  time: v => isTextThat(v, t => timeText(t) !== null),
  dateTime: v => isTextThat(v, t => dateTimeText(t) !== null),
  months: v => isDuration(v) && v.unit === 'months',
  seconds: v => isDuration(v) && v.unit === 'seconds',
  list: v => Array.isArray(v),
  context: v => typeof v === 'object' && !Array.isArray(v),
  null: () => false,
  unknown: () => true,
}
/** Whether a value is one of the type, with all that is in it; blank is of every type. */
function isOf(type: ValueType, v: Value): boolean {
  if (v === null) return true
  if (!IS_OF_KIND[type.kind](v)) return false
  if (type.kind === 'list' && Array.isArray(v)) return v.every((item: Value) => isOf(type.of, item))
  if (type.kind !== 'context') return true
  return [...type.members].every(([member, of]) => isOf(of, (v as Context)[member] ?? null))
}

describe('the types of expressions', () => {
  it('what is said to be of a type has a value of it, or none, whatever is answered', () => {
    let [typed, given] = [0, 0]
    fc.assert(
      fc.property(expression, fc.array(values, { minLength: 2, maxLength: 5 }), (text, all) => {
        const { type, problems } = checkTypes(parse(text), scope, null)
        if (problems.length > 0) return
        typed += 1
        const run = compiled(text)
        for (const slots of all) {
          const found = run(slots)
          given += found === null ? 0 : 1
          expect([text, type.kind, isOf(type, found) ? true : found]).toEqual([text, type.kind, true])
        }
      }),
      { numRuns: 8_000 },
    )
    expect(Math.min(typed, given)).toBeGreaterThan(400)
  })

  it('a problem stands where something is written, and what is proposed instead is a name that there is', () => {
    fc.assert(
      fc.property(expression, text => {
        for (const p of checkTypes(parse(text), scope, BOOLEAN).problems)
          expect([p.from >= 0, p.to <= text.length, p.from < p.to || text.length === 0]).toEqual([
            true,
            true,
            true,
          ])
      }),
      { numRuns: 1_000 },
    )
    fc.assert(
      fc.property(fc.constantFrom('harbour', 'draught', 'insured', 'pontoon'), fc.nat(6), (name, at) => {
        // A name with one letter too few is most like itself.
        expect(
          nearest(name.slice(0, at) + name.slice(at + 1), [
            ...NAMES,
            'harbour',
            'draught',
            'insured',
            'pontoon',
          ]),
        ).toBe(name)
      }),
    )
  })
})

describe('the types of expressions', () => {
  it('trees are walked and rebuilt whole: what is replaced by itself reads and means the same', () => {
    fc.assert(
      fc.property(expression, values, (text, slots) => {
        const tree = parse(text)
        const again = replaceParts(tree, () => null)
        expect(print(again)).toBe(print(tree))
        expect(nodesOf(tree).length).toBe(
          1 + childrenOf(tree).reduce((n, child) => n + nodesOf(child).length, 0),
        )
        expect(
          JSON.stringify(
            compile(again, name => (NAMES.includes(name) ? NAMES.indexOf(name) + 2 : undefined))(slots),
          ),
        ).toBe(JSON.stringify(compiled(text)(slots)))
      }),
      { numRuns: 1_500 },
    )
  })

  it('the opposite of a condition that is one holds just where it does not', () => {
    fc.assert(
      fc.property(expression, values, (text, slots) => {
        const { type, problems } = checkTypes(parse(text), scope, BOOLEAN)
        if (problems.length > 0 || type.kind !== 'boolean') return
        const [own, turned] = [compiled(text)(slots), compiled(print(oppositeCondition(parse(text))))(slots)]
        if (typeof own === 'boolean' && typeof turned === 'boolean')
          expect([text, turned]).toEqual([text, !own])
      }),
      { numRuns: 2_000 },
    )
  })
})
