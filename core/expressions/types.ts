import type { Num } from './decimal'

/** A value while a form is filled. Blank is null; dates are ISO text; choices are codes. */
export type Value = null | boolean | Num | string | readonly Value[]

/** The codes that a choice question offers, with their labels, in order. */
export type Choices = ReadonlyMap<string, string>

/** The static type of an expression. `unknown` stands where an error was already reported, and fits everywhere. */
export type ValueType =
  | { kind: 'number' } | { kind: 'text' } | { kind: 'boolean' } | { kind: 'date' } | { kind: 'null' } | { kind: 'unknown' }
  | { kind: 'code', choices: Choices }
  | { kind: 'list', of: ValueType }

export const NUMBER: ValueType = { kind: 'number' }
export const TEXT: ValueType = { kind: 'text' }
export const BOOLEAN: ValueType = { kind: 'boolean' }
export const DATE: ValueType = { kind: 'date' }
export const NULL: ValueType = { kind: 'null' }
export const UNKNOWN: ValueType = { kind: 'unknown' }

const NAMES: Record<ValueType['kind'], string> = {
  number: 'a number', text: 'a text', boolean: 'yes or no', date: 'a date', null: 'blank', unknown: 'unknown', code: 'a choice', list: 'a list',
}

/** The type in words for people: “a number”, “a list”. */
export const typeName = (type: ValueType): string => NAMES[type.kind]

/** The kind that decides what a value may be compared with; a choice is a text that is one of its codes. */
const baseKind = (type: ValueType): ValueType['kind'] => type.kind === 'code' ? 'text' : type.kind

/** Whether values of the two types can be equal or ordered at all. */
export function comparable(a: ValueType, b: ValueType): boolean {
  if (a.kind === 'unknown' || b.kind === 'unknown' || a.kind === 'null' || b.kind === 'null') return true
  if (a.kind === 'list' && b.kind === 'list') return comparable(a.of, b.of)
  return baseKind(a) === baseKind(b)
}

/** The type that holds values of both, or null when there is none. */
export function join(a: ValueType, b: ValueType): ValueType | null {
  if (a.kind === 'unknown' || b.kind === 'null') return a
  if (b.kind === 'unknown' || a.kind === 'null') return b
  if (a.kind === 'list' && b.kind === 'list') {
    const of = join(a.of, b.of)
    return of && { kind: 'list', of }
  }
  if (a.kind === 'code' && b.kind === 'code' && a.choices === b.choices) return a
  if (baseKind(a) !== baseKind(b)) return null
  return a.kind === 'code' ? TEXT : a
}
