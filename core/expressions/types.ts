import type { Duration } from './dates'
import type { Num } from './decimal'

/** The members of a value by name: an entry of a repeating group, the rows of a grid, a row of a list. */
export interface Context {
  readonly [member: string]: Value
}
/** A value while a form is filled. Blank is null; dates and times are ISO text; choices are codes. */
export type Value = null | boolean | Num | string | Duration | Context | readonly Value[]

/** The codes that a choice question offers, with their labels, in order. */
export type Choices = ReadonlyMap<string, string>
/** The types of members by name. */
export type Members = ReadonlyMap<string, ValueType>

/** The static type of an expression. `unknown` stands where an error was already reported, and fits everywhere. */
export type ValueType =
  | {
      kind:
        | 'number'
        | 'text'
        | 'boolean'
        | 'date'
        | 'time'
        | 'dateTime'
        | 'months'
        | 'seconds'
        | 'null'
        | 'unknown'
    }
  /** `members`: what a path reaches through the chosen code, such as its points. */
  | { kind: 'code'; choices: Choices; members?: Members }
  | { kind: 'list'; of: ValueType; members?: Members }
  | { kind: 'context'; members: Members }

export const NUMBER: ValueType = { kind: 'number' }
export const TEXT: ValueType = { kind: 'text' }
export const BOOLEAN: ValueType = { kind: 'boolean' }
export const DATE: ValueType = { kind: 'date' }
export const TIME: ValueType = { kind: 'time' }
export const DATE_TIME: ValueType = { kind: 'dateTime' }
export const MONTHS: ValueType = { kind: 'months' }
export const SECONDS: ValueType = { kind: 'seconds' }
export const NULL: ValueType = { kind: 'null' }
export const UNKNOWN: ValueType = { kind: 'unknown' }

const NAMES: Record<ValueType['kind'], string> = {
  number: 'a number',
  text: 'a text',
  boolean: 'yes or no',
  date: 'a date',
  time: 'a time',
  dateTime: 'a date and time',
  months: 'a length in months',
  seconds: 'a length of time',
  context: 'an entry',
  null: 'blank',
  unknown: 'unknown',
  code: 'a choice',
  list: 'a list',
}

/** The type in words for people: “a number”, “a list”. */
export const typeName = (type: ValueType): string => NAMES[type.kind]

/** The kind that decides what a value may be compared with; a choice is a text that is one of its codes. */
const baseKind = (type: ValueType): ValueType['kind'] => (type.kind === 'code' ? 'text' : type.kind)

/** Whether values of the two types can be equal or ordered at all. */
export function areComparable(a: ValueType, b: ValueType): boolean {
  if (a.kind === 'unknown' || b.kind === 'unknown' || a.kind === 'null' || b.kind === 'null') return true
  if (a.kind === 'list' && b.kind === 'list') return areComparable(a.of, b.of)
  if (a.kind === 'context' || b.kind === 'context') return false
  return baseKind(a) === baseKind(b)
}

/** The type that holds values of both, or null when there is none. */
export function joinTypes(a: ValueType, b: ValueType): ValueType | null {
  if (a.kind === 'unknown' || b.kind === 'null') return a
  if (b.kind === 'unknown' || a.kind === 'null') return b
  if (a.kind === 'list' && b.kind === 'list') {
    const of = joinTypes(a.of, b.of)
    return of && { kind: 'list', of }
  }
  return joinPlain(a, b)
}

function joinPlain(a: ValueType, b: ValueType): ValueType | null {
  if (a.kind === 'code' && b.kind === 'code' && a.choices === b.choices) return a
  if (a.kind === 'context' || b.kind === 'context') return a === b ? a : null
  if (baseKind(a) !== baseKind(b)) return null
  return a.kind === 'code' ? TEXT : a
}
