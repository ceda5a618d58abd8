import { edgeOf } from './edge'
import type { Literal } from './literal'
import { floorOf, ZERO, type Rational } from './rational'
import type { Solver } from './solver'
import type { LinearForm } from './tableau'

/** A test of two numbers that, once true, stays true while the first falls and the second grows; each a variable or a constant. */
export interface Monotone {
  literal: Literal
  first: number | bigint
  second: number | bigint
  test: (first: bigint, second: bigint) => boolean
  range: readonly [bigint, bigint]
  /** What makes the test true, and what makes it false, wherever the numbers lie. */
  surely: { true: Literal; false: Literal }
}

/** What the tests need of the arithmetic that they belong to. */
interface Bounds {
  /** The literal “the variable is at most that”. */
  atMost: (v: number, at: bigint) => Literal
  formOfAtom: (literal: Literal) => LinearForm | undefined
}

/** The monotone tests of an arithmetic, and how what a model says of them is corrected by numbers. */
export class Monotones {
  readonly all: Monotone[] = []

  constructor(
    private readonly solver: Solver,
    private readonly bounds: Bounds,
  ) {}

  /** The tests of which the model says what numbers contradict. */
  contradicted = (values: ReadonlyMap<number, Rational>): Monotone[] =>
    this.all.filter(m => this.isContradicted(m, values))

  /** What would make a test surely be what the model says of it. */
  sureLiteral = ({ literal, surely }: Monotone): Literal =>
    this.solver.isTrue(literal) ? surely.true : surely.false

  /** What the next model should say first: that numbers lie well within what this one says of a test. */
  sureLiterals(m: Monotone): Literal[] {
    const wanted = this.sureLiteral(m)
    const atoms = this.bounds.formOfAtom(Math.abs(wanted))?.atoms ?? []
    const at = atoms.findIndex(a => a.literal === Math.abs(wanted))
    return wanted > 0 ? atoms.slice(at).map(a => a.literal) : atoms.slice(0, at + 1).map(a => -a.literal)
  }

  private numbersOf({ first, second }: Monotone, values: ReadonlyMap<number, Rational>): [bigint, bigint] {
    const numberOf = (part: number | bigint) =>
      typeof part === 'bigint' ? part : floorOf(values.get(part) ?? ZERO)
    return [numberOf(first), numberOf(second)]
  }

  /** Whether numbers contradict what the model says of a monotone test. */
  private isContradicted(m: Monotone, values: ReadonlyMap<number, Rational>): boolean {
    const isSaid = this.solver.isTrue(m.literal)
    const isAssigned = isSaid || this.solver.isTrue(-m.literal)
    return isAssigned && m.test(...this.numbersOf(m, values)) !== isSaid
  }

  /** A clause that rules out what the model says of a monotone test and the numbers contradict, and as much beside as follows. */
  corrected(m: Monotone, values: ReadonlyMap<number, Rational>): Literal[] {
    const said = this.solver.isTrue(m.literal)
    const [first, second] = this.numbersOf(m, values)
    const [a, b] = [this.variableOf(m.first), this.variableOf(m.second)]
    if (a === null && b === null) return [said ? -m.literal : m.literal]
    // One side is a constant: the edge of the other decides for good.
    if (a === null && b !== null) {
      const from = edgeOf(m.range, x => m.test(first, x), false)
      return said
        ? [-m.literal, -this.limit(b, from - 1n, false)]
        : [m.literal, this.limit(b, from - 1n, true)]
    }
    // For this second and all below, the first has to stay within the edge; for this second and all above, it is true up to there.
    const upTo = edgeOf(m.range, x => m.test(x, second), true)
    const within = a === null ? -m.literal : this.limit(a, upTo, said)
    return said
      ? [-m.literal, within, ...(b === null ? [] : [-this.limit(b, second, true)])]
      : [m.literal, -within, ...(b === null ? [] : [this.limit(b, second - 1n, false)])]
  }

  private variableOf = (part: number | bigint): number | null => (typeof part === 'number' ? part : null)
  /** The second number is sought where it is, and the first moved: else both may creep along the calendar, a day each time. */
  private limit(v: number, at: bigint, wanted: boolean): Literal {
    const literal = this.bounds.atMost(v, at)
    this.solver.prefer(wanted ? literal : -literal)
    return literal
  }
}
