import type { Value } from './types'

/** The values of a response by slot. Slot 0 holds `today()`, the day on which the response was begun, as ISO text; slot 1 the row being narrowed. */
export type Slots = readonly Value[]
/** What an expression binds itself: the variable of `some … in`, the item of a filter; the innermost first. */
export interface Locals {
  readonly name: string | null
  readonly value: Value
  readonly up: Locals | null
}
/** A compiled expression: a function of the slots. */
export type Compiled = (slots: Slots, locals?: Locals | null) => Value
export const TODAY_SLOT = 0
export const ROW_SLOT = 1
export const FIRST_SLOT = 2

/** What names mean when an expression is compiled. */
export interface Environment {
  /** The slot of a question code; undefined makes the name blank. */
  slotOf: (name: string) => number | undefined
  /** What a member reaches through the value of a question (the points of the chosen option), where it is not in the value itself. */
  memberOf?: (name: string, member: string) => Compiled | undefined
}
