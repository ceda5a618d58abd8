import type { Literal } from './literal'
import type { Solver } from './solver'

/**
 * What a sum, or a part of it, can be: the values that it can reach above its least, in order, each with the literal “it is at least that”.
 * The least itself needs none.
 */
export interface Ordered {
  values: readonly number[]
  atLeast: readonly Literal[]
}

/**
 * The sum of two parts by clauses in both directions (a totalizer over order-encoded numbers; Bailleux and Boufkhad 2003): every bound on the
 * parts that matters to a bound on the sum reaches it by unit propagation.
 */
export function joinOrdered(solver: Solver, a: Ordered, b: Ordered): Ordered {
  const [left, right] = [
    [0, ...a.values],
    [0, ...b.values],
  ]
  const values = [...new Set(left.flatMap(x => right.map(y => x + y)))].sort((x, y) => x - y).slice(1)
  const atLeast = values.map(() => solver.newVariable())
  const at = new Map(values.map((value, i) => [value, i] as const))
  for (let i = 1; i < atLeast.length; i++) solver.addClause([-(atLeast[i] ?? 0), atLeast[i - 1] ?? 0])
  left.forEach((x, i) =>
    right.forEach((y, j) => {
      const index = at.get(x + y)
      const reached = index === undefined ? undefined : atLeast[index]
      if (reached !== undefined) solver.addClause([...reaches(a, i), ...reaches(b, j), reached])
      const beyond = atLeast[index === undefined ? 0 : index + 1]
      if (beyond !== undefined) solver.addClause([...exceeds(a, i), ...exceeds(b, j), -beyond])
    }),
  )
  return { values, atLeast }
}

/** The literal that denies “a part has reached its i-th value”; none for its least, which it always has. */
const reaches = ({ atLeast }: Ordered, i: number): Literal[] => (i === 0 ? [] : [-(atLeast[i - 1] ?? 0)])
/** The literal “a part is above its i-th value”; none where there is nothing above. */
const exceeds = ({ atLeast }: Ordered, i: number): Literal[] => {
  const above = atLeast[i]
  return above === undefined ? [] : [above]
}

/** The literal “the sum is at most that”, in units above its least. */
export function atMost({ values, atLeast }: Ordered, limit: number, yes: Literal): Literal {
  if (limit < 0) return -yes
  const above = values.findIndex(value => value > limit)
  const literal = above < 0 ? undefined : atLeast[above]
  return literal === undefined ? yes : -literal
}
