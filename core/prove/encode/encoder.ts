import type { Expr, ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import type { Domain } from '../model/domain'
import type { Model } from '../model/model'
import type { PieceTest } from '../model/textAutomata'
import type { Arithmetic } from '../solver/arithmetic'
import type { Linear } from '../solver/linear'
import type { Literal } from '../solver/literal'
import type { Solver } from '../solver/solver'

/** When a condition is definitely true, and when definitely false; neither is unknown. */
export interface Truth {
  t: Literal
  f: Literal
}

/** The answer of one question in the solver: one literal per class, and one for blank. Exactly one holds; of a multiple choice, blank or some. */
export interface Variable {
  blank: Literal
  classes: readonly { value: Value; literal: Literal }[]
  domain: Domain
  isOpen: boolean
}

/** What numbers count: plain numbers, days of dates, seconds of instants and clocks, and lengths of time in seconds. */
export type Unit = 'number' | 'day' | 'second' | 'clock' | 'length'

/** An expression as a sum, and when it has a value. */
export interface Term {
  linear: Linear
  unit: Unit
  given: Literal
}

/** One of the sums that a number may equal: while `when` is true it equals `linear`, and has a value while `given` is true. */
export interface TermCase {
  when: Literal
  linear: Linear
  given: Literal
}

/** Clauses, and the literals made of others: what every part of an encoding stands on. */
export interface Logic {
  readonly solver: Solver
  readonly arithmetic: Arithmetic
  /** A literal that is always true. */
  readonly yes: Literal
  and: (literals: readonly Literal[]) => Literal
  or: (literals: readonly Literal[]) => Literal
}

/** That two choices are answered, and alike. */
export interface Equality {
  codes: readonly [string, string]
  literal: Literal
}

/** A test that the answers don't determine; null: whatever stood there. */
export interface FreeTest extends Truth {
  expr: Expr | null
}

/** What the parts of an encoding ask of one another: each kind of expression may stand inside every other. */
export interface Encoder extends Logic {
  readonly model: Model
  /** Tests that the answers don't determine, by what they say. */
  readonly free: Map<string, FreeTest>
  /** The comparisons of two choices: what is the same just while both are answered alike. */
  readonly equalities: Equality[]
  /** Says that answers are taken wider than they are. */
  widen: () => void
  /** Whether something that is looked at rests on a test left open, or on answers taken wider than they are. */
  watched: <T>(look: () => T) => { result: T; isOpen: boolean }
  /** What may be true, false or unknown, whatever is answered. */
  anything: () => Truth
  /** The answer of a question. */
  variable: (code: string) => Variable
  /** The truth of a test of a question’s text of which more is asked than classes tell; null for any other. */
  testOfPiece: (code: string, test: PieceTest) => Truth | null
  /** The truth of a condition. */
  truth: (expr: Expr) => Truth
  /** An expression over numbers and times as a sum; null where it is none. */
  term: (expr: Expr) => Term | null
  /** The answer of a question that holds numbers or times, as a sum; null for any other. */
  termOfQuestion: (code: string) => Term | null
  /** A number that equals each of some sums while its literal is true; none or one of them is. */
  among: (unit: Unit, cases: readonly TermCase[]) => Term
  /** What a function finds out about the entries of a group, as a number; null for anything else. */
  aggregate: (expr: ExprOf<'call'>) => Term | null
}
