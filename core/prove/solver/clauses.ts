import type { Literal } from './literal'

/** Where a clause lies in the arena: its length stands there, its literals behind. `NONE` is no clause. */
export type Clause = number
export const NONE = 0

/** Where what belongs to a literal lies: a variable's literals are neighbours. */
export const literalIndex = (literal: Literal): number => (literal > 0 ? literal * 2 : 1 - literal * 2)

/** The clauses of a solver, one behind the other in one array: a form has hundreds of thousands, too many for an object each. */
export class Clauses {
  private arena = new Int32Array(256)
  private size = 1
  /** By literal index, for when it becomes true: the clauses that watch its opposite, each with another of its literals; while that is true there is nothing to do. */
  private readonly watches: number[][] = [[], []]

  /** Makes room for the watches of one variable more. */
  grow() {
    this.watches.push([], [])
  }

  /** The clauses to look at when a literal becomes true, each followed by another of its literals. */
  watchesOf(literal: Literal): number[] {
    return this.watches[literalIndex(literal)] ?? []
  }

  literalsOf(clause: Clause): Int32Array {
    return this.arena.subarray(clause + 1, clause + 1 + (this.arena[clause] ?? 0))
  }

  /** Keeps a clause of two literals or more; the first two are watched. */
  attach(literals: readonly Literal[]): Clause {
    const clause = this.size
    this.size += literals.length + 1
    while (this.size > this.arena.length) this.arena = widen(this.arena)
    this.arena[clause] = literals.length
    this.arena.set(literals, clause + 1)
    const [a = 0, b = 0] = literals
    this.watchesOf(-a).push(clause, b)
    this.watchesOf(-b).push(clause, a)
    return clause
  }

  /** Moves a clause's watch away from a false literal and gives 0; where it must stay, the other watch, which then stands in front. `values`: by literal index. */
  movedWatch(clause: Clause, falseLiteral: Literal, values: Int8Array): Literal {
    const { arena } = this
    let first = arena[clause + 1] ?? 0
    if (first === falseLiteral) {
      first = arena[clause + 2] ?? 0
      arena[clause + 1] = first
      arena[clause + 2] = falseLiteral
    }
    if (values[literalIndex(first)] === 1) return first
    const end = clause + (arena[clause] ?? 0)
    for (let i = clause + 3; i <= end; i++) {
      const candidate = arena[i] ?? 0
      if (values[literalIndex(candidate)] === -1) continue
      arena[clause + 2] = candidate
      arena[i] = falseLiteral
      this.watchesOf(-candidate).push(clause, first)
      return 0
    }
    return first
  }
}

/** The same with room for twice as much. */
export function widen<A extends Int8Array | Int32Array>(array: A): A
export function widen(array: Int8Array | Int32Array): Int8Array | Int32Array {
  const wider =
    array instanceof Int8Array ? new Int8Array(array.length * 2) : new Int32Array(array.length * 2)
  wider.set(array)
  return wider
}
