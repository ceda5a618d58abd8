import { compileArithmetic, compileNegative } from './compileArithmetic'
import {
  compileAmong,
  compileBetween,
  both,
  compileSlotComparison,
  ORDER,
  compareInOrder,
} from './compileComparison'
import { ROW_SLOT, TODAY_SLOT, type Compiled, type Environment, type Locals, type Slots } from './compiled'
import { compileAnd, compileOr, compileNot } from './compileLogic'
import { durationFrom, isDuration, partOf } from './dates'
import { isNumber, numberFromDouble, type Num } from './decimal'
import { FUNCTIONS } from './functions'
import { handleByKind, type ByKind, type Expr, type ExprOf, type TestNode } from './tree'
import type { Value } from './types'
import { isContext, sameValue } from './values'

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

  build = (e: Expr): Compiled => handleByKind(this.byKind, e)

  private readonly byKind: ByKind<Compiled> = {
    number: e => constant(e.value),
    text: e => constant(e.value),
    boolean: e => constant(e.value),
    date: e => constant(e.value),
    time: e => constant(e.value),
    dateTime: e => constant(e.value),
    duration: e => constant(durationFrom(e.value)),
    null: () => constant(null),
    name: e => this.name(e.name),
    list: e => {
      const items = e.items.map(this.build)
      return (slots, locals) => items.map(item => item(slots, locals))
    },
    compare: e => this.compare(e),
    between: e => compileBetween(this.build(e.value), this.build(e.low), this.build(e.high)),
    in: e => this.membership(e),
    and: e => compileAnd(e.parts.map(this.build)),
    or: e => compileOr(e.parts.map(this.build)),
    not: e => compileNot(this.build(e.value)),
    arithmetic: e => compileArithmetic(e.op, this.build(e.left), this.build(e.right)),
    negate: e => compileNegative(this.build(e.value)),
    if: e => {
      const [test, then, otherwise] = [this.build(e.test), this.build(e.then), this.build(e.else)]
      return (slots, locals) =>
        test(slots, locals) === true ? then(slots, locals) : otherwise(slots, locals)
    },
    call: e => call(e.name, e.args.map(this.build)),
    path: e => this.path(e),
    filter: e => this.filter(e),
    quantified: e => this.quantified(e),
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
    if (!reach || of.kind !== 'name') return (slots, locals) => memberOf(value(slots, locals), member)
    if (depth === 0) return reach
    return (slots, locals) =>
      isBound(of.name, locals ?? null) ? memberOf(value(slots, locals), member) : reach(slots, locals)
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
        if (isNumber(outcome)) return itemAt(items, outcome)
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
    if (slot !== undefined && right !== undefined) return compileSlotComparison(e.op, slot, right)
    const [left, other] = [this.build(e.left), this.build(e.right)]
    if (e.op === '=') return (slots, locals) => sameValue(left(slots, locals), other(slots, locals))
    if (e.op === '!=') return (slots, locals) => !sameValue(left(slots, locals), other(slots, locals))
    const order = ORDER[e.op]
    return (slots, locals) => compareInOrder(left(slots, locals), other(slots, locals), order)
  }

  private membership(e: ExprOf<'in'>): Compiled {
    const slot = this.slotOf(e.value)
    const constants = e.tests.map(t =>
      t.kind === 'range' || t.kind === 'unaryTest' ? undefined : simpleConstant(t),
    )
    if (slot !== undefined && !e.bare && constants.every(c => c !== undefined))
      return compileAmong(slot, constants)
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
        both(compareInOrder(v, low(slots, locals), above), compareInOrder(v, high(slots, locals), below))
    }
    if (test.kind === 'unaryTest') {
      const other = this.build(test.value)
      if (test.op === '=') return (v, slots, locals) => sameValue(v, other(slots, locals))
      if (test.op === '!=') return (v, slots, locals) => !sameValue(v, other(slots, locals))
      const order = ORDER[test.op]
      return (v, slots, locals) => compareInOrder(v, other(slots, locals), order)
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

/** The item of a list by its number, from 1 on, or from the end with a negative one. */
const itemAt = (items: readonly Value[], number: Num): Value => {
  if (typeof number !== 'number') return null
  return items[number < 0 ? items.length + number : number - 1] ?? null
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

type Test = (value: Value, slots: Slots, locals?: Locals | null) => boolean | null
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
