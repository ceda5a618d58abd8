import {
  add,
  compareNumbers,
  divide,
  isNumber,
  multiply,
  negate,
  numberFromDouble,
  power,
  subtract,
  type Num,
} from './decimal'
import { between as timeBetween, durationFrom, isDuration, moved, partOf, scaledDuration } from './dates'
import { FUNCTIONS, isContext, sameValue } from './functions'
import type { CompareOp, Expr, ExprOf, TestNode } from './tree'
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

/**
 * Turns a checked expression into a function (closures, so it runs under a strict content security policy).
 * Evaluation is FEEL's three-valued one: null is unknown. What does not type-check gives null, never an exception.
 */
export function compile(expr: Expr, environment: Environment | Environment['slotOf']): Compiled {
  return new Compiler(typeof environment === 'function' ? { slotOf: environment } : environment).build(expr)
}

class Compiler {
  /** How many enclosing expressions bind names: a name outside of all is a slot. */
  private depth = 0
  constructor(private readonly environment: Environment) {}

  build = (e: Expr): Compiled => {
    switch (e.kind) {
      case 'number':
      case 'text':
      case 'boolean':
      case 'date':
      case 'time':
      case 'dateTime':
        return constant(e.value)
      case 'duration':
        return constant(durationFrom(e.value))
      case 'null':
        return constant(null)
      case 'name':
        return this.name(e.name)
      case 'list': {
        const items = e.items.map(this.build)
        return (slots, locals) => items.map(item => item(slots, locals))
      }
      case 'compare':
        return this.compare(e)
      case 'between':
        return between(this.build(e.value), this.build(e.low), this.build(e.high))
      case 'in':
        return this.membership(e)
      case 'and':
        return conjunction(e.parts.map(this.build))
      case 'or':
        return disjunction(e.parts.map(this.build))
      case 'not': {
        const value = this.build(e.value)
        return (slots, locals) => {
          const v = value(slots, locals)
          return typeof v === 'boolean' ? !v : null
        }
      }
      case 'arithmetic':
        return arithmetic(e.op, this.build(e.left), this.build(e.right))
      case 'negate': {
        const value = this.build(e.value)
        return (slots, locals) => {
          const v = value(slots, locals)
          return isNumber(v) ? negate(v) : isDuration(v) ? scaledDuration(v, -1) : null
        }
      }
      case 'if': {
        const [test, then, otherwise] = [this.build(e.test), this.build(e.then), this.build(e.else)]
        return (slots, locals) =>
          test(slots, locals) === true ? then(slots, locals) : otherwise(slots, locals)
      }
      case 'call':
        return call(e.name, e.args.map(this.build))
      case 'path':
        return this.path(e)
      case 'filter':
        return this.filter(e)
      case 'quantified':
        return this.quantified(e)
    }
  }

  private name(name: string): Compiled {
    const slot = name === 'row' ? ROW_SLOT : this.environment.slotOf(name)
    if (this.depth === 0) return slot === undefined ? constant(null) : slots => slots[slot] ?? null
    return (slots, locals) => {
      for (let at = locals ?? null; at; at = at.up) {
        if (at.name === name || (at.name === null && name === 'item')) return at.value
        if (at.name === null && isContext(at.value) && name in at.value) return at.value[name] ?? null
      }
      return slot === undefined ? null : (slots[slot] ?? null)
    }
  }

  private slotOf = (e: Expr): number | undefined =>
    e.kind === 'name' && this.depth === 0 && e.name !== 'row' ? this.environment.slotOf(e.name) : undefined

  private within<T>(build: () => T): T {
    this.depth += 1
    const built = build()
    this.depth -= 1
    return built
  }

  private path({ of, member }: ExprOf<'path'>): Compiled {
    const { depth } = this
    const reach = of.kind === 'name' ? this.environment.memberOf?.(of.name, member) : undefined
    const value = this.build(of)
    if (reach && of.kind === 'name')
      return depth === 0
        ? reach
        : (slots, locals) =>
            isBound(of.name, locals ?? null) ? memberOf(value(slots, locals), member) : reach(slots, locals)
    return (slots, locals) => memberOf(value(slots, locals), member)
  }

  private filter({ of, by }: ExprOf<'filter'>): Compiled {
    const list = this.build(of)
    const test = this.within(() => this.build(by))
    return (slots, locals) => {
      const items = list(slots, locals)
      if (!Array.isArray(items)) return null
      // Without an item, only what stands in the brackets tells whether one was picked or several.
      if (items.length === 0)
        return isNumber(test(slots, { name: null, value: null, up: locals ?? null })) ? null : []
      const kept: Value[] = []
      for (const item of items) {
        const outcome = test(slots, { name: null, value: item, up: locals ?? null })
        if (isNumber(outcome))
          return typeof outcome === 'number'
            ? (items[outcome < 0 ? items.length + outcome : outcome - 1] ?? null)
            : null
        if (outcome === true) kept.push(item)
      }
      return kept
    }
  }

  private quantified({ mode, variable, over, satisfies }: ExprOf<'quantified'>): Compiled {
    const list = this.build(over)
    const test = this.within(() => this.build(satisfies))
    const decisive = mode === 'some'
    return (slots, locals) => {
      const items = list(slots, locals)
      if (!Array.isArray(items)) return null
      let result: boolean | null = !decisive
      for (const item of items) {
        const outcome = test(slots, { name: variable, value: item, up: locals ?? null })
        if (outcome === decisive) return decisive
        if (outcome !== !decisive) result = null
      }
      return result
    }
  }

  private compare(e: ExprOf<'compare'>): Compiled {
    const slot = this.slotOf(e.left)
    const right = simpleConstant(e.right)
    if (slot !== undefined && right !== undefined) return compareSlot(e.op, slot, right)
    const [left, other] = [this.build(e.left), this.build(e.right)]
    if (e.op === '=') return (slots, locals) => sameValue(left(slots, locals), other(slots, locals))
    if (e.op === '!=') return (slots, locals) => !sameValue(left(slots, locals), other(slots, locals))
    const order = ORDER[e.op]
    return (slots, locals) => ordered(left(slots, locals), other(slots, locals), order)
  }

  private membership(e: ExprOf<'in'>): Compiled {
    const slot = this.slotOf(e.value)
    const constants = e.tests.map(t =>
      t.kind === 'range' || t.kind === 'unaryTest' ? undefined : simpleConstant(t),
    )
    if (slot !== undefined && !e.bare && constants.every(c => c !== undefined))
      return amongConstants(slot, constants)
    const value = this.build(e.value)
    const tests = e.tests.map(t => this.test(t, e.bare))
    return (slots, locals) => {
      const v = value(slots, locals)
      let result: boolean | null = false
      for (const test of tests) {
        const outcome = test(v, slots, locals)
        if (outcome === true) return true
        if (outcome === null) result = null
      }
      return result
    }
  }

  private test(test: TestNode, bare: boolean): Test {
    if (test.kind === 'range') {
      const [low, high] = [this.build(test.low), this.build(test.high)]
      const [above, below] = [ORDER[test.lowOpen ? '>' : '>='], ORDER[test.highOpen ? '<' : '<=']]
      return (v, slots, locals) =>
        both(ordered(v, low(slots, locals), above), ordered(v, high(slots, locals), below))
    }
    if (test.kind === 'unaryTest') {
      const other = this.build(test.value)
      if (test.op === '=') return (v, slots, locals) => sameValue(v, other(slots, locals))
      if (test.op === '!=') return (v, slots, locals) => !sameValue(v, other(slots, locals))
      const order = ORDER[test.op]
      return (v, slots, locals) => ordered(v, other(slots, locals), order)
    }
    const item = this.build(test)
    if (!bare) return (v, slots, locals) => sameValue(v, item(slots, locals))
    return (v, slots, locals) => {
      const other = item(slots, locals)
      return Array.isArray(other) && !Array.isArray(v)
        ? other.some(o => sameValue(v, o))
        : sameValue(v, other)
    }
  }
}

const isBound = (name: string, locals: Locals | null): boolean =>
  locals !== null &&
  (locals.name === name ||
    (locals.name === null && isContext(locals.value) && name in locals.value) ||
    isBound(name, locals.up))

const constant =
  (value: Value): Compiled =>
  () =>
    value

/** A constant that `===` compares rightly: everything but lists, durations and numbers beyond 15 digits. */
const simpleConstant = (e: Expr): Value | undefined => {
  if (e.kind === 'null') return null
  if (
    e.kind === 'text' ||
    e.kind === 'boolean' ||
    e.kind === 'date' ||
    e.kind === 'time' ||
    e.kind === 'dateTime'
  )
    return e.value
  return e.kind === 'number' && typeof e.value === 'number' ? e.value : undefined
}

/** A member of a value; of a list, the members of its items (DMN 1.5, 10.3.2.5.1). */
function memberOf(value: Value, member: string): Value {
  if (value === null) return null
  if (Array.isArray(value)) return value.map((item: Value) => memberOf(item, member))
  if (isContext(value)) return value[member] ?? null
  const part = typeof value === 'string' || isDuration(value) ? partOf(value, member) : null
  return part === null ? null : numberFromDouble(part)
}

function amongConstants(slot: number, constants: readonly (Value | undefined)[]): Compiled {
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
function compareSlot(op: CompareOp, slot: number, right: Value): Compiled {
  if (op === '=')
    return right === null ? slots => (slots[slot] ?? null) === null : slots => slots[slot] === right
  if (op === '!=')
    return right === null ? slots => (slots[slot] ?? null) !== null : slots => slots[slot] !== right
  const order = ORDER[op]
  if (typeof right === 'number') return compareNumber(op, slot, right, order)
  return typeof right === 'string'
    ? compareText(op, slot, right)
    : slots => ordered(slots[slot] ?? null, right, order)
}

function compareNumber(op: Order, slot: number, right: number, order: Ordering): Compiled {
  const rare = (left: Value | undefined) => (left === null ? null : ordered(left ?? null, right, order))
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
const ORDER: Record<Order, Ordering> = {
  '<': d => d < 0,
  '<=': d => d <= 0,
  '>': d => d > 0,
  '>=': d => d >= 0,
}

/** An order between two numbers, two dates or times, or two durations of one unit; unknown with a blank or with other kinds. */
function ordered(a: Value, b: Value, order: Ordering): boolean | null {
  if (a === null || b === null) return null
  if (typeof a === 'string') return typeof b === 'string' ? order(a < b ? -1 : a > b ? 1 : 0) : null
  if (isNumber(a)) return isNumber(b) ? order(compareNumbers(a, b)) : null
  return isDuration(a) && isDuration(b) && a.unit === b.unit ? order(a.amount - b.amount) : null
}

const both = (a: boolean | null, b: boolean | null): boolean | null =>
  a === false || b === false ? false : a === null || b === null ? null : true

function between(value: Compiled, low: Compiled, high: Compiled): Compiled {
  return (slots, locals) => {
    const v = value(slots, locals)
    return both(ordered(v, low(slots, locals), ORDER['>=']), ordered(v, high(slots, locals), ORDER['<=']))
  }
}

function conjunction(parts: readonly Compiled[]): Compiled {
  const [a, b] = parts
  if (parts.length === 2 && a && b) {
    return (slots, locals) => {
      const first = a(slots, locals)
      if (first === false) return false
      const second = b(slots, locals)
      return second === false ? false : first === true && second === true ? true : null
    }
  }
  return (slots, locals) => {
    let result: boolean | null = true
    for (const part of parts) {
      const value = part(slots, locals)
      if (value === false) return false
      if (value !== true) result = null
    }
    return result
  }
}

function disjunction(parts: readonly Compiled[]): Compiled {
  const [a, b] = parts
  if (parts.length === 2 && a && b) {
    return (slots, locals) => {
      const first = a(slots, locals)
      if (first === true) return true
      const second = b(slots, locals)
      return second === true ? true : first === false && second === false ? false : null
    }
  }
  return (slots, locals) => {
    let result: boolean | null = false
    for (const part of parts) {
      const value = part(slots, locals)
      if (value === true) return true
      if (value !== false) result = null
    }
    return result
  }
}

type Test = (value: Value, slots: Slots, locals?: Locals | null) => boolean | null
type ArithmeticOp = ExprOf<'arithmetic'>['op']

const NUMERIC: Record<ArithmeticOp, (a: Num, b: Num) => Num | null> = {
  '+': add,
  '-': subtract,
  '*': multiply,
  '/': divide,
  '**': power,
}

function arithmetic(op: ArithmeticOp, left: Compiled, right: Compiled): Compiled {
  const run = NUMERIC[op]
  return (slots, locals) => {
    const a = left(slots, locals)
    const b = right(slots, locals)
    if (a === null || b === null) return null
    return isNumber(a) && isNumber(b) ? run(a, b) : withTimes(op, a, b)
  }
}

/** Texts are joined by `+`; dates and durations are added and subtracted, durations stretched (DMN 1.5, table 48 and on). */
function withTimes(op: ArithmeticOp, a: Value, b: Value): Value {
  if (typeof a === 'string' && typeof b === 'string')
    return op === '-' ? timeBetween(b, a) : op === '+' ? a + b : null
  if (typeof a === 'string' && isDuration(b))
    return op === '+' ? moved(a, b) : op === '-' ? moved(a, { ...b, amount: -b.amount }) : null
  if (isDuration(a) && typeof b === 'string') return op === '+' ? moved(b, a) : null
  if (isDuration(a) && isDuration(b)) return sumOf(op, a, b)
  if (isDuration(a) && isNumber(b))
    return op === '*'
      ? scaledDuration(a, Number(b))
      : op === '/' && b !== 0
        ? scaledDuration(a, 1 / Number(b))
        : null
  return isNumber(a) && isDuration(b) && op === '*' ? scaledDuration(b, Number(a)) : null
}

type DurationValue = Extract<Value, { unit: 'months' | 'seconds' }>
function sumOf(op: ArithmeticOp, a: DurationValue, b: DurationValue): Value {
  if (a.unit !== b.unit) return null
  if (op === '/') return b.amount === 0 ? null : divide(a.amount, b.amount)
  return op === '+' || op === '-'
    ? scaledDuration({ unit: a.unit, amount: op === '+' ? a.amount + b.amount : a.amount - b.amount }, 1)
    : null
}

function call(name: string, args: readonly Compiled[]): Compiled {
  const called = FUNCTIONS.get(name)
  if (!called) return constant(null)
  return (slots, locals) => {
    const values = args.map(arg => arg(slots, locals))
    if (!called.takesBlank && values.some(v => v === null)) return null
    const today = slots[TODAY_SLOT]
    return called.run(values, typeof today === 'string' ? today : '')
  }
}
