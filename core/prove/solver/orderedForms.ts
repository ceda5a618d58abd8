import type { Literal } from './literal'
import { atMost, joinOrdered, type Ordered } from './orderedSum'
import { floorOf } from './rational'
import type { Solver } from './solver'
import type { Atom, LinearForm } from './tableau'

/** Between which whole numbers a variable lies in any case; null: without end. */
export type WholeBounds = readonly [bigint | null, bigint | null]

/** What is asked of the variables of sums. */
interface Variables {
  bounds: (variable: number) => WholeBounds
  /** A number that is near for variables that one answer decides. */
  decidedBy: (variable: number) => number
  /** The literal “the variable is at most that”. */
  atMost: (variable: number, limit: bigint) => Literal
}

/** A number with more values is not taken apart, nor are sums that would take more clauses than this altogether. */
const MOST_VALUES = 128n
const MOST_CLAUSES = 60_000

/** A sum in clauses, above the least that it can be. */
interface OrderedForm {
  sum: Ordered
  least: bigint
}

/** Sums of whole numbers of few values, put into clauses: then what counts is found by propagation, not model by model. */
export class OrderedForms {
  private readonly known = new Map<LinearForm, OrderedForm | null>()
  private clausesLeft = MOST_CLAUSES

  constructor(
    private readonly solver: Solver,
    private readonly yes: Literal,
    private readonly variables: Variables,
  ) {}

  /** Ties an atom of a sum to the clauses of that sum, where it has some. */
  tie(form: LinearForm, { at, strict, literal }: Atom) {
    const ordered = this.of(form)
    if (!ordered || strict) return
    const same = atMost(ordered.sum, Number(floorOf(at) - ordered.least), this.yes)
    this.solver.addClause([-literal, same])
    this.solver.addClause([literal, -same])
  }

  private of(form: LinearForm): OrderedForm | null {
    const known = this.known.get(form)
    if (known !== undefined) return known
    const made = this.make(form)
    this.known.set(form, made)
    return made
  }

  private make({ terms }: LinearForm): OrderedForm | null {
    let least = 0n
    const sizes: number[] = []
    const parts: (() => Ordered)[] = []
    const { decidedBy } = this.variables
    const sideBySide = [...terms].sort(([a], [b]) => decidedBy(a) - decidedBy(b) || a - b)
    for (const [v, factor] of sideBySide) {
      const [low, high] = this.variables.bounds(v)
      if (low === null || high === null || high - low > MOST_VALUES) return null
      least += factor * (factor > 0n ? low : high)
      sizes.push(Number(high - low))
      parts.push(() => this.orderedTerm(v, factor, low, high))
    }
    const cost = inPairs(
      sizes,
      (a, b) => a + b,
      (a, b) => 2 * (a + 1) * (b + 1),
    )
    if (cost.total > this.clausesLeft) return null
    this.clausesLeft -= cost.total
    const sum = inPairs(
      parts.map(make => make()),
      (a, b) => joinOrdered(this.solver, a, b),
    ).joined
    return sum ? { sum, least } : null
  }

  /** A multiple of one variable, above its least. */
  private orderedTerm(v: number, factor: bigint, low: bigint, high: bigint): Ordered {
    const values: number[] = []
    const atLeast: Literal[] = []
    for (let step = 1n; step <= high - low; step++) {
      values.push(Number(step * (factor > 0n ? factor : -factor)))
      const reached =
        factor > 0n ? -this.variables.atMost(v, low + step - 1n) : this.variables.atMost(v, high - step)
      atLeast.push(reached)
    }
    return { values, atLeast }
  }
}

/** Joins things pair by pair until one is left, and adds up what each joining costs. */
function inPairs<T>(
  things: readonly T[],
  join: (a: T, b: T) => T,
  costOf: (a: T, b: T) => number = () => 0,
): { joined: T | undefined; total: number } {
  let parts = [...things]
  let total = 0
  while (parts.length > 1) {
    const next: T[] = []
    for (let i = 0; i < parts.length; i += 2) {
      const [a, b] = [parts[i], parts[i + 1]]
      if (a === undefined) continue
      if (b !== undefined) total += costOf(a, b)
      next.push(b === undefined ? a : join(a, b))
    }
    parts = next
  }
  return { joined: parts[0], total }
}
