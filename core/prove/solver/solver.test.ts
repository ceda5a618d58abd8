import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Arithmetic } from './arithmetic'
import { constantOf, linearSum, type Linear } from './linear'
import { ONE, rational, type Rational } from './rational'
import { Solver } from './solver'
import type { Literal } from './literal'
import { Simplex } from './simplex'

const VARIABLES = 6
const literal = fc.tuple(fc.integer({ min: 1, max: VARIABLES }), fc.boolean()).map(([v, on]) => (on ? v : -v))
const clause = fc.array(literal, { minLength: 1, maxLength: 4 })

/** Every assignment, as the set of literals that it makes true. */
const assignments = Array.from(
  { length: 2 ** VARIABLES },
  (_, bits) =>
    new Set(Array.from({ length: VARIABLES }, (_, i) => ((bits >> i) % 2 === 1 ? i + 1 : -(i + 1)))),
)
const holds = (clauses: readonly (readonly Literal[])[], by: ReadonlySet<Literal>) =>
  clauses.every(c => c.some(l => by.has(l)))

describe('the solver of clauses', () => {
  it('agrees with trying all assignments, while clauses are added between calls under changing assumptions', () => {
    const round = fc.tuple(
      fc.array(clause, { maxLength: 5 }),
      fc.array(literal, { maxLength: 4 }),
      fc.boolean(),
    )
    fc.assert(
      fc.property(fc.array(round, { minLength: 1, maxLength: 10 }), rounds => {
        const solver = new Solver()
        for (let v = 0; v < VARIABLES; v++) solver.newVariable()
        const all: Literal[][] = []
        for (const [clauses, assumed, isNamed] of rounds) {
          for (const c of clauses) solver.addClause(c)
          all.push(...clauses)
          const models = assignments.filter(a => holds(all, a) && assumed.every(l => a.has(l)))
          const outcome = solver.solve(
            assumed,
            1_000,
            isNamed ? Array.from({ length: VARIABLES }, (_, i) => i + 1) : null,
          )
          expect(outcome).toBe(models.length > 0 ? 'satisfiable' : 'unsatisfiable')
          if (outcome === 'satisfiable')
            expect(models.some(m => [...m].every(l => solver.isTrue(l)))).toBe(true)
          // What it blames is assumed, and does suffice.
          else
            expect([
              solver.conflict.every(l => assumed.includes(l)),
              assignments.some(a => holds(all, a) && solver.conflict.every(l => a.has(l))),
            ]).toEqual([true, false])
        }
      }),
      { numRuns: 1_500 },
    )
  })
})

describe('the solver of clauses', () => {
  it('agrees where only what gates are made of is named, and gates are added between calls', () => {
    const gate = fc.tuple(
      fc.array(literal, { minLength: 1, maxLength: 3 }),
      fc.array(fc.tuple(fc.nat(), fc.boolean()), { maxLength: 2 }),
    )
    const round = fc.tuple(
      fc.array(gate, { maxLength: 4 }),
      fc.array(fc.tuple(fc.nat(), fc.boolean()), { minLength: 1, maxLength: 3 }),
    )
    fc.assert(
      fc.property(fc.array(round, { minLength: 1, maxLength: 8 }), rounds => {
        const solver = new Solver()
        const inputs = Array.from({ length: VARIABLES }, () => solver.newVariable())
        // A gate is true just when all that it is made of is.
        const gates: { literal: Literal; parts: Literal[] }[] = []
        const value = (l: Literal, a: ReadonlySet<Literal>): boolean =>
          Math.abs(l) <= VARIABLES
            ? a.has(l)
            : gates.find(g => g.literal === Math.abs(l))!.parts.every(p => value(p, a)) === l > 0
        const nth = ([n, on]: readonly [number, boolean]): Literal[] =>
          gates.length === 0 ? [] : [gates[n % gates.length]!.literal * (on ? 1 : -1)]
        for (const [added, asked] of rounds) {
          for (const [own, others] of added) {
            const parts = [...own, ...others.flatMap(nth)]
            const made = solver.newVariable()
            for (const p of parts) solver.addClause([-made, p])
            solver.addClause([made, ...parts.map(p => -p)])
            gates.push({ literal: made, parts })
          }
          const assumed = asked.flatMap(nth)
          const outcome = solver.solve(assumed, 1_000, inputs)
          expect(outcome).toBe(
            assignments.some(a => assumed.every(l => value(l, a))) ? 'satisfiable' : 'unsatisfiable',
          )
          if (outcome === 'satisfiable')
            expect(assumed.every(l => value(l, new Set(inputs.map(v => (solver.isTrue(v) ? v : -v)))))).toBe(
              true,
            )
        }
      }),
      { numRuns: 1_500 },
    )
  })
})

const LOW = -2,
  HIGH = 3
const sum = fc.tuple(
  fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 3, maxLength: 3 }),
  fc.integer({ min: -6, max: 6 }),
  fc.boolean(),
  fc.boolean(),
)

const ALWAYS = 0
interface Put {
  of: number
  side: 'low' | 'high'
  at: number
  always: boolean
}

/** Values that keep the chosen bounds, or the bounds that can’t be kept together. */
function solveBounds(sums: readonly (readonly number[])[], puts: readonly Put[], chosen: readonly number[]) {
  const simplex = new Simplex<number>(ALWAYS)
  const plain = [0, 1, 2].map(() => simplex.variable())
  const all = [
    ...plain,
    ...sums.map(fs =>
      simplex.sum(fs.flatMap((f, i) => (f === 0 ? [] : [[plain[i]!, rational(f)] as const]))),
    ),
  ]
  for (const i of chosen) {
    const { of, side, at, always } = puts[i]!
    const failed = simplex.bound(all[of]!, side, { r: rational(at), e: rational(0) }, always ? ALWAYS : i + 1)
    if (failed) return { failed, values: null }
  }
  const failed = simplex.check()
  return {
    failed: failed === 'limit' ? null : failed,
    values: failed === null ? all.map(v => simplex.values()[v]!) : null,
  }
}

describe('arithmetic beside it', () => {
  it('finds whole numbers for sums just when there are some, and finds ones that fit', () => {
    fc.assert(
      fc.property(fc.array(sum, { minLength: 1, maxLength: 6 }), sums => {
        const solver = new Solver()
        const yes = solver.newVariable()
        solver.addClause([yes])
        const arithmetic = new Arithmetic(solver, yes)
        const variables = [0, 1, 2].map(() => arithmetic.variable(ONE))
        for (const { index } of variables)
          arithmetic.within(index, { literal: yes, low: rational(LOW), high: rational(HIGH), strict: false })
        // Each asks for a sum that is at most zero (below zero, where strict), or for its opposite.
        const asked = sums.map(([factors, constant, strict, turned]) => {
          const linear = factors.reduce<Linear>(
            (total, f, i) => linearSum(total, variables[i]!.linear, rational(f)),
            constantOf(rational(constant)),
          )
          return arithmetic.atMostZero(linear, strict) * (turned ? -1 : 1)
        })
        const fits = (values: readonly number[]) =>
          sums.every(([factors, constant, strict, turned]) => {
            const total = factors.reduce((t, f, i) => t + f * values[i]!, constant)
            return (strict ? total < 0 : total <= 0) !== turned
          })
        const range = Array.from({ length: HIGH - LOW + 1 }, (_, i) => LOW + i)
        const possible = range.some(a => range.some(b => range.some(c => fits([a, b, c]))))
        let outcome = solver.solve(asked)
        for (let round = 0; outcome === 'satisfiable' && round < 500; round++) {
          const checked = arithmetic.check()
          if (checked.is !== 'lemmas') {
            expect(checked.is).toBe('consistent')
            break
          }
          for (const lemma of checked.clauses) solver.addClause(lemma)
          outcome = solver.solve(asked)
        }
        expect(outcome).toBe(possible ? 'satisfiable' : 'unsatisfiable')
        if (!possible) return
        const found = variables
          .map(({ index }) => arithmetic.valueOf(index))
          .map((value: Rational | null) => (value === null ? LOW : Number(value.n) / Number(value.d)))
        // A variable that no sum asks for has no value of its own.
        expect(found.every(n => Number.isInteger(n) && n >= LOW && n <= HIGH) && fits(found)).toBe(true)
      }),
      { numRuns: 500 },
    )
  })
})

describe('arithmetic beside it', () => {
  it('over the rationals: values that keep all bounds, or bounds that can’t be kept, with those that hold in any case', () => {
    const factors = fc.array(fc.integer({ min: -2, max: 2 }), { minLength: 3, maxLength: 3 })
    const put: fc.Arbitrary<Put> = fc.record({
      of: fc.nat(5),
      side: fc.constantFrom('low' as const, 'high' as const),
      at: fc.integer({ min: -4, max: 4 }),
      always: fc.boolean(),
    })
    let conflicts = 0
    fc.assert(
      fc.property(
        fc.array(factors, { minLength: 3, maxLength: 3 }),
        fc.array(put, { minLength: 2, maxLength: 10 }),
        (sums, puts) => {
          const solve = (chosen: readonly number[]) => solveBounds(sums, puts, chosen)
          const everything = puts.map((_, i) => i)
          const { failed, values } = solve(everything)
          if (values) {
            const number = (v: Rational) => Number(v.n) / Number(v.d)
            for (const { of, side, at } of puts)
              expect(side === 'low' ? number(values[of]!) >= at : number(values[of]!) <= at).toBe(true)
            sums.forEach((fs, i) =>
              expect(number(values[3 + i]!)).toBeCloseTo(
                fs.reduce((t, f, j) => t + f * number(values[j]!), 0),
                9,
              ),
            )
            return
          }
          conflicts += 1
          if (!failed) throw new Error('Neither values nor a conflict.')
          expect(solve(everything.filter(i => puts[i]!.always || failed.includes(i + 1))).values).toBeNull()
        },
      ),
      { numRuns: 1000 },
    )
    expect(conflicts).toBeGreaterThan(100)
  })
})
