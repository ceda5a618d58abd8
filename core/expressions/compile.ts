import { add, compareNumbers, divide, isNumber, multiply, negate, power, subtract, type Num } from './decimal'
import { FUNCTIONS, sameValue } from './functions'
import type { CompareOp, Expr, ExprOf, TestNode } from './tree'
import type { Value } from './types'

/** The values of a response by slot. Slot 0 holds `today()`, the day on which the response was begun, as ISO text. */
export type Slots = readonly Value[]
/** A compiled expression: a function of the slots. */
export type Compiled = (slots: Slots) => Value
export const TODAY_SLOT = 0

/**
 * Turns a checked expression into a function (closures, so it runs under a strict content security policy).
 * Evaluation is FEEL's three-valued one: null is unknown. What does not type-check gives null, never an exception.
 * @param slotOf the slot of a question code; undefined makes the name blank.
 */
export function compile(expr: Expr, slotOf: (name: string) => number | undefined): Compiled {
  const build = (e: Expr): Compiled => {
    switch (e.kind) {
      case 'number': case 'text': case 'boolean': case 'date': return constant(e.value)
      case 'null': return constant(null)
      case 'name': return nameOf(slotOf(e.name))
      case 'list': {
        const items = e.items.map(build)
        return slots => items.map(item => item(slots))
      }
      case 'compare': return compare(e, build, slotOf)
      case 'between': return between(build(e.value), build(e.low), build(e.high))
      case 'in': return membership(e, build, slotOf)
      case 'and': return conjunction(e.parts.map(build))
      case 'or': return disjunction(e.parts.map(build))
      case 'not': {
        const value = build(e.value)
        return (slots) => {
          const v = value(slots)
          return typeof v === 'boolean' ? !v : null
        }
      }
      case 'arithmetic': return arithmetic(e, build)
      case 'negate': {
        const value = build(e.value)
        return (slots) => {
          const v = value(slots)
          return isNumber(v) ? negate(v) : null
        }
      }
      case 'if': {
        const [test, then, otherwise] = [build(e.test), build(e.then), build(e.else)]
        return slots => test(slots) === true ? then(slots) : otherwise(slots)
      }
      case 'call': return call(e, build)
    }
  }
  return build(expr)
}

const constant = (value: Value): Compiled => () => value
const nameOf = (slot: number | undefined): Compiled => slot === undefined ? () => null : slots => slots[slot] ?? null

/** A constant that `===` compares rightly: everything but lists and numbers beyond 15 digits. */
const simpleConstant = (e: Expr): Value | undefined => {
  if (e.kind === 'null') return null
  if (e.kind === 'text' || e.kind === 'boolean' || e.kind === 'date') return e.value
  return e.kind === 'number' && typeof e.value === 'number' ? e.value : undefined
}

function compare(e: ExprOf<'compare'>, build: (e: Expr) => Compiled, slotOf: (name: string) => number | undefined): Compiled {
  const slot = e.left.kind === 'name' ? slotOf(e.left.name) : undefined
  const right = simpleConstant(e.right)
  if (slot !== undefined && right !== undefined) return compareSlot(e.op, slot, right)
  const [left, other] = [build(e.left), build(e.right)]
  if (e.op === '=') return slots => sameValue(left(slots), other(slots))
  if (e.op === '!=') return slots => !sameValue(left(slots), other(slots))
  const order = ORDER[e.op]
  return slots => ordered(left(slots), other(slots), order)
}

/** The commonest leaf, a question against a constant, without detours. */
function compareSlot(op: CompareOp, slot: number, right: Value): Compiled {
  if (op === '=') return slots => (slots[slot] ?? null) === right
  if (op === '!=') return slots => (slots[slot] ?? null) !== right
  const order = ORDER[op]
  if (typeof right !== 'number') return slots => ordered(slots[slot] ?? null, right, order)
  const whole = SIMPLE_ORDER[op]
  return (slots) => {
    const left = slots[slot]
    return typeof left === 'number' ? whole(left, right) : ordered(left ?? null, right, order)
  }
}

type Ordering = (difference: number) => boolean
const ORDER: Record<Exclude<CompareOp, '=' | '!='>, Ordering> = {
  '<': d => d < 0, '<=': d => d <= 0, '>': d => d > 0, '>=': d => d >= 0,
}
const SIMPLE_ORDER: Record<Exclude<CompareOp, '=' | '!='>, (a: number, b: number) => boolean> = {
  '<': (a, b) => a < b, '<=': (a, b) => a <= b, '>': (a, b) => a > b, '>=': (a, b) => a >= b,
}

/** An order between two numbers or two dates; unknown with a blank or with other kinds. */
function ordered(a: Value, b: Value, order: Ordering): boolean | null {
  if (isNumber(a) && isNumber(b)) return order(compareNumbers(a, b))
  if (typeof a === 'string' && typeof b === 'string') return order(a < b ? -1 : a > b ? 1 : 0)
  return null
}

const both = (a: boolean | null, b: boolean | null): boolean | null => a === false || b === false ? false : a === null || b === null ? null : true

function between(value: Compiled, low: Compiled, high: Compiled): Compiled {
  return (slots) => {
    const v = value(slots)
    return both(ordered(v, low(slots), ORDER['>=']), ordered(v, high(slots), ORDER['<=']))
  }
}

function conjunction(parts: readonly Compiled[]): Compiled {
  const [a, b] = parts
  if (parts.length === 2 && a && b) {
    return (slots) => {
      const first = a(slots)
      if (first === false) return false
      const second = b(slots)
      return second === false ? false : first === true && second === true ? true : null
    }
  }
  return (slots) => {
    let result: boolean | null = true
    for (const part of parts) {
      const value = part(slots)
      if (value === false) return false
      if (value !== true) result = null
    }
    return result
  }
}

function disjunction(parts: readonly Compiled[]): Compiled {
  const [a, b] = parts
  if (parts.length === 2 && a && b) {
    return (slots) => {
      const first = a(slots)
      if (first === true) return true
      const second = b(slots)
      return second === true ? true : first === false && second === false ? false : null
    }
  }
  return (slots) => {
    let result: boolean | null = false
    for (const part of parts) {
      const value = part(slots)
      if (value === true) return true
      if (value !== false) result = null
    }
    return result
  }
}

function membership(e: ExprOf<'in'>, build: (e: Expr) => Compiled, slotOf: (name: string) => number | undefined): Compiled {
  const slot = e.value.kind === 'name' ? slotOf(e.value.name) : undefined
  const constants = e.tests.map(t => t.kind === 'range' || t.kind === 'unaryTest' ? undefined : simpleConstant(t))
  if (slot !== undefined && !e.bare && constants.every(c => c !== undefined)) {
    const [first, second] = constants
    if (constants.length === 1) return slots => (slots[slot] ?? null) === first
    if (constants.length === 2) {
      return (slots) => {
        const value = slots[slot] ?? null
        return value === first || value === second
      }
    }
    const known: ReadonlySet<Value> = new Set(constants)
    return slots => known.has(slots[slot] ?? null)
  }
  const value = build(e.value)
  const tests = e.tests.map(t => testOf(t, build, e.bare))
  return (slots) => {
    const v = value(slots)
    let result: boolean | null = false
    for (const test of tests) {
      const outcome = test(v, slots)
      if (outcome === true) return true
      if (outcome === null) result = null
    }
    return result
  }
}

type Test = (value: Value, slots: Slots) => boolean | null

function testOf(test: TestNode, build: (e: Expr) => Compiled, bare: boolean): Test {
  if (test.kind === 'range') {
    const [low, high] = [build(test.low), build(test.high)]
    const [above, below] = [ORDER[test.lowOpen ? '>' : '>='], ORDER[test.highOpen ? '<' : '<=']]
    return (v, slots) => both(ordered(v, low(slots), above), ordered(v, high(slots), below))
  }
  if (test.kind === 'unaryTest') {
    const other = build(test.value)
    if (test.op === '=') return (v, slots) => sameValue(v, other(slots))
    if (test.op === '!=') return (v, slots) => !sameValue(v, other(slots))
    const order = ORDER[test.op]
    return (v, slots) => ordered(v, other(slots), order)
  }
  const item = build(test)
  if (!bare) return (v, slots) => sameValue(v, item(slots))
  return (v, slots) => {
    const other = item(slots)
    return Array.isArray(other) && !Array.isArray(v) ? other.some(o => sameValue(v, o)) : sameValue(v, other)
  }
}

const ARITHMETIC: Record<ExprOf<'arithmetic'>['op'], (a: Num, b: Num) => Num | null> = {
  '+': add, '-': subtract, '*': multiply, '/': divide, '**': power,
}

function arithmetic(e: ExprOf<'arithmetic'>, build: (e: Expr) => Compiled): Compiled {
  const [left, right, run] = [build(e.left), build(e.right), ARITHMETIC[e.op]]
  return (slots) => {
    const a = left(slots)
    const b = right(slots)
    return isNumber(a) && isNumber(b) ? run(a, b) : null
  }
}

function call(e: ExprOf<'call'>, build: (e: Expr) => Compiled): Compiled {
  const called = FUNCTIONS.get(e.name)
  if (!called) return constant(null)
  const args = e.args.map(build)
  return (slots) => {
    const values = args.map(arg => arg(slots))
    if (!called.takesBlank && values.some(v => v === null)) return null
    const today = slots[TODAY_SLOT]
    return called.run(values, typeof today === 'string' ? today : '')
  }
}
