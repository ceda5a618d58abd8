import type { Compiled } from './compiled'
import { isDuration } from './dates'
import { compareNumbers, compareOrdered, isNumber } from './decimal'
import type { CompareOp } from './tree'
import type { Value } from './types'

/** Whether the value of a slot is one of some constants. */
export function compileAmong(slot: number, constants: readonly (Value | undefined)[]): Compiled {
  const [first, second] = constants
  if (constants.length === 1) return slots => (slots[slot] ?? null) === first
  if (constants.length === 2) {
    return slots => {
      const value = slots[slot] ?? null
      return value === first || value === second
    }
  }
  const known: ReadonlySet<Value | undefined> = new Set(constants)
  return slots => known.has(slots[slot] ?? null)
}

/** The commonest leaf, a question against a constant, without detours. */
export function compileSlotComparison(op: CompareOp, slot: number, right: Value): Compiled {
  if (op === '=')
    return right === null ? slots => (slots[slot] ?? null) === null : slots => slots[slot] === right
  if (op === '!=')
    return right === null ? slots => (slots[slot] ?? null) !== null : slots => slots[slot] !== right
  const order = ORDER[op]
  if (typeof right === 'number') return compareNumber(op, slot, right, order)
  return typeof right === 'string'
    ? compareText(op, slot, right)
    : slots => compareInOrder(slots[slot] ?? null, right, order)
}

function compareNumber(op: Order, slot: number, right: number, order: Ordering): Compiled {
  const rare = (left: Value | undefined) =>
    left === null ? null : compareInOrder(left ?? null, right, order)
  switch (op) {
    case '<':
      return slots => {
        const left = slots[slot]
        return typeof left === 'number' ? left < right : rare(left)
      }
    case '<=':
      return slots => {
        const left = slots[slot]
        return typeof left === 'number' ? left <= right : rare(left)
      }
    case '>':
      return slots => {
        const left = slots[slot]
        return typeof left === 'number' ? left > right : rare(left)
      }
    case '>=':
      return slots => {
        const left = slots[slot]
        return typeof left === 'number' ? left >= right : rare(left)
      }
  }
}

function compareText(op: Order, slot: number, right: string): Compiled {
  switch (op) {
    case '<':
      return slots => {
        const left = slots[slot]
        return typeof left === 'string' ? left < right : null
      }
    case '<=':
      return slots => {
        const left = slots[slot]
        return typeof left === 'string' ? left <= right : null
      }
    case '>':
      return slots => {
        const left = slots[slot]
        return typeof left === 'string' ? left > right : null
      }
    case '>=':
      return slots => {
        const left = slots[slot]
        return typeof left === 'string' ? left >= right : null
      }
  }
}

type Order = Exclude<CompareOp, '=' | '!='>
type Ordering = (difference: number) => boolean
/** What the difference of two values says of their order. */
export const ORDER: Record<Order, Ordering> = {
  '<': d => d < 0,
  '<=': d => d <= 0,
  '>': d => d > 0,
  '>=': d => d >= 0,
}

/** An order between two numbers, two dates or times, or two durations of one unit; unknown with a blank or with other kinds. */
export function compareInOrder(a: Value, b: Value, order: Ordering): boolean | null {
  if (a === null || b === null) return null
  if (typeof a === 'string') return typeof b === 'string' ? order(compareOrdered(a, b)) : null
  if (isNumber(a)) return isNumber(b) ? order(compareNumbers(a, b)) : null
  return isDuration(a) && isDuration(b) && a.unit === b.unit ? order(a.amount - b.amount) : null
}

/** Kleene's “and” of two. */
export function both(a: boolean | null, b: boolean | null): boolean | null {
  if (a === false || b === false) return false
  return a === null || b === null ? null : true
}

/** `x between low and high`. */
export function compileBetween(value: Compiled, low: Compiled, high: Compiled): Compiled {
  return (slots, locals) => {
    const v = value(slots, locals)
    return both(
      compareInOrder(v, low(slots, locals), ORDER['>=']),
      compareInOrder(v, high(slots, locals), ORDER['<=']),
    )
  }
}
