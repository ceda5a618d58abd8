import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Arithmetic } from './arithmetic'
import { constantOf, linearSum } from './linear'
import { rational } from './rational'
import { Solver } from './solver'

const LEAST = -2
const MOST = 2
const COUNT = 4
const variable = fc.integer({ min: 0, max: COUNT - 1 })
const factor = fc.constantFrom(-3, -2, -1, 1, 2, 3)
const term = fc.tuple(variable, factor)
/** A sum of multiples that is at most a limit, or above it. */
const bound = fc.record({
  terms: fc.array(term, { minLength: 2, maxLength: 5 }),
  limit: fc.integer({ min: -14, max: 14 }),
  isHeld: fc.boolean(),
})
type Bound = typeof bound extends fc.Arbitrary<infer T> ? T : never

const values = Array.from({ length: MOST - LEAST + 1 }, (_, i) => LEAST + i)
const assignments = Array.from({ length: COUNT }).reduce<number[][]>(
  all => all.flatMap(given => values.map(v => [...given, v])),
  [[]],
)
const fits = (given: readonly number[], { terms, limit, isHeld }: Bound) =>
  terms.reduce((sum, [v, by]) => sum + by * (given[v] ?? 0), 0) <= limit === isHeld

describe('sums of few values in clauses', () => {
  it('are decided by the clauses alone, without the arithmetic, as by trying all numbers', () => {
    fc.assert(
      fc.property(fc.array(bound, { minLength: 1, maxLength: 5 }), bounds => {
        const solver = new Solver()
        const yes = solver.newVariable()
        solver.addClause([yes])
        const arithmetic = new Arithmetic(solver, yes)
        const numbers = Array.from({ length: COUNT }, () => {
          const { index, linear } = arithmetic.variable(rational(1))
          arithmetic.within(index, {
            literal: yes,
            low: rational(LEAST),
            high: rational(MOST),
            strict: false,
          })
          return linear
        })
        const assumed = bounds.map(({ terms, limit, isHeld }) => {
          const sum = terms.reduce(
            (total, [v, by]) => linearSum(total, numbers[v]!, rational(by)),
            constantOf(rational(-limit)),
          )
          const literal = arithmetic.atMostZero(sum)
          return isHeld ? literal : -literal
        })
        const isPossible = assignments.some(given => bounds.every(b => fits(given, b)))
        expect(solver.solve(assumed, 10_000, null)).toBe(isPossible ? 'satisfiable' : 'unsatisfiable')
      }),
      { numRuns: 400 },
    )
  })
})
