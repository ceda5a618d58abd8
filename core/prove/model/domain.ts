import type { Num } from '../../expressions/decimal'
import type { Value } from '../../expressions/types'
import type { PieceTest, TextForm } from './textAutomata'

/**
 * The quotient of a question's possible answers: classes that no condition of the form tells apart, each with an answer that
 * stands for it. Blank is not among them. Finite classes are exact: every possible answer lies in exactly one.
 */
export interface Domain {
  classes: readonly Value[]
  /** Each class is a single answer, so that any test of this question alone can be tabulated. */
  singletons: boolean
  /** Several of the classes may be chosen at once. */
  many: boolean
  /** The classes are wider than what can be answered, or conditions look inside them: examples need their replay. */
  open: boolean
  /** Conditions can't be decided by the classes at all, only blank or not. */
  opaque: boolean
  /** Of texts: the classes tell every test that is made of this one alone (see `isTextTest`). */
  uniform?: boolean
  /** Of texts of which too much is asked for classes: the tests of pieces, the texts named as a whole, and the form of the answer. */
  pieces?: { tests: readonly PieceTest[]; named: readonly string[]; form: TextForm }
  /** Of several at once, by class: how many choices it stands for. */
  sizes?: readonly number[]
  /** Of numbers and times, by class: the stretch of the line that it stands for. */
  ranges?: readonly Range[]
  /** What numbers lie on: digits after the point; null: any. */
  places?: number | null
}

/** A single number, or all strictly between two (null: without end). Dates count days, times seconds. */
export interface Range {
  low: Num | null
  high: Num | null
  isPoint: boolean
}

export const EXACT = { many: false, open: false, opaque: false } as const

/** Something that is answered, of which conditions ask more than classes can tell. */
export const opaque = (sample: Value = null): Domain => ({
  classes: [sample ?? SOMETHING],
  singletons: false,
  many: false,
  open: true,
  opaque: true,
})
/** Stands for an answer that can't be written down, such as a calculated value. */
export const SOMETHING = '\u0000something'
export const OPAQUE: Domain = opaque()
/** A repeating group, or a grid: its entries or rows are looked into one by one. */
export const ENTRIES: Domain = { ...opaque(), open: false }

/** Classes that tell all that conditions ask. */
export const exact = (classes: readonly Value[], singletons: boolean): Domain => ({
  ...EXACT,
  classes,
  singletons,
})
