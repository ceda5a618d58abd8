import { compile } from '../../expressions/compile'
import type { Environment } from '../../expressions/compiled'
import { isNumber } from '../../expressions/decimal'
import { print } from '../../expressions/print'
import { replaceParts } from '../../expressions/replace'
import { namesIn, nodesOf, type Expr, type TestNode } from '../../expressions/tree'
import { literalOf } from '../../parties/literal'
import { HERE } from '../model/rewritten'

export const bool = (value: boolean): Expr => ({ kind: 'boolean', value, ...HERE })
export const name = (code: string): Expr => ({ kind: 'name', name: code, ...HERE })
export const NULL: Expr = { kind: 'null', ...HERE }
const isTrue = (e: Expr) => e.kind === 'boolean' && e.value
const isFalse = (e: Expr) => e.kind === 'boolean' && !e.value
/** One of two, by a test; where that is certain, just the one. */
export function when(test: Expr, then: Expr, otherwise: Expr): Expr {
  if (test.kind === 'boolean') return test.value ? then : otherwise
  if (then.kind === 'null' && otherwise.kind === 'null') return NULL
  return test.kind === 'null' ? otherwise : { kind: 'if', test, then, else: otherwise, ...HERE }
}
/** Both, where parts that are certain are left out. */
export function both(...parts: Expr[]): Expr {
  const open = parts.filter(p => !isTrue(p))
  if (open.some(isFalse)) return bool(false)
  const [only] = open
  if (!only) return bool(true)
  return open.length === 1 ? only : { kind: 'and', parts: open, ...HERE }
}
/** At least one, where parts that are certain are left out. */
export function either(...parts: Expr[]): Expr {
  const open = parts.filter(p => !isFalse(p))
  if (open.some(isTrue)) return bool(true)
  const [only] = open
  if (!only) return bool(false)
  return open.length === 1 ? only : { kind: 'or', parts: open, ...HERE }
}
/** The contrary. */
export function not(value: Expr): Expr {
  if (value.kind === 'boolean') return bool(!value.value)
  return { kind: 'not', value, ...HERE }
}

/** An expression with a name replaced; what is reached through a blank is blank. */
export function replaceName(expr: Expr, code: string, by: Expr): Expr {
  return replaceParts(expr, node => {
    if (node.kind === 'name' && node.name === code) return by
    const isReached = (node.kind === 'path' || node.kind === 'filter') && by.kind === 'null'
    return isReached && rootOf(node) === code ? by : null
  })
}
function rootOf(expr: Expr): string | null {
  if (expr.kind === 'path' || expr.kind === 'filter') return rootOf(expr.of)
  return expr.kind === 'name' ? expr.name : null
}

/** An expression without what is certain in it: parts that ask for no answer stand as what they come to, tests of blanks as unknown. */
export function simplify(expr: Expr): Expr {
  const inside = replaceParts(expr, node => (node === expr ? null : simplify(node)))
  if (isOfBlank(inside)) return NULL
  if (inside.kind === 'and' || inside.kind === 'or') return simplifyJunction(inside)
  if (inside.kind === 'not') return inside.value.kind === 'null' ? NULL : not(inside.value)
  if (inside.kind === 'if') return when(inside.test, inside.then, inside.else)
  return evaluate(inside) ?? inside
}

/** Unknown parts stay: what is false and unknown is false, what is true and unknown is not certain to be true. */
function simplifyJunction(expr: Extract<Expr, { kind: 'and' | 'or' }>): Expr {
  const made = expr.kind === 'and' ? both(...expr.parts) : either(...expr.parts)
  return made.kind === expr.kind && made.parts.every(p => p.kind === 'null') ? NULL : made
}

const ORDERS: ReadonlySet<string> = new Set(['<', '<=', '>', '>='])
const isNull = (expr: Expr): boolean => expr.kind === 'null'
const isRange = (test: TestNode) =>
  test.kind === 'range' || (test.kind === 'unaryTest' && ORDERS.has(test.op))

/** Whether it is unknown since it calculates with a blank or asks for its order. */
function isOfBlank(expr: Expr): boolean {
  if (expr.kind === 'compare') return ORDERS.has(expr.op) && (isNull(expr.left) || isNull(expr.right))
  if (expr.kind === 'arithmetic') return isNull(expr.left) || isNull(expr.right)
  if (expr.kind === 'negate' || expr.kind === 'between') return isNull(expr.value)
  return expr.kind === 'in' && isNull(expr.value) && expr.tests.every(isRange)
}

const NO_ANSWERS: Environment = { slotOf: () => undefined }
const WORKED_OUT: ReadonlySet<string> = new Set([
  'compare',
  'between',
  'in',
  'quantified',
  'call',
  'path',
  'filter',
])

/** What asks for no answer comes to; null for what does, and for what rests on the day. */
function evaluate(expr: Expr): Expr | null {
  const isOpen = namesIn(expr).length > 0 || nodesOf(expr).some(n => n.kind === 'call' && n.name === 'today')
  if (!WORKED_OUT.has(expr.kind) || isOpen) return null
  const value = compile(expr, NO_ANSWERS)([])
  const isPlain = value === null || typeof value === 'boolean' || isNumber(value)
  return isPlain ? literalOf(value, { kind: 'unknown' }) : null
}

/** A yes or no that is unknown, as the rule language can write it. */
const UNKNOWN: Expr = { kind: 'if', test: bool(false), then: bool(true), else: NULL, ...HERE }
const written = (part: Expr): Expr => (isNull(part) ? UNKNOWN : part)

/** A condition as text: unknown parts of it are written as something that is a condition. */
export function printCondition(expr: Expr): string {
  const inside = (node: Expr): Expr =>
    replaceParts(node, part => {
      if (part.kind === 'and' || part.kind === 'or')
        return { ...part, parts: part.parts.map(p => inside(written(p))) }
      return part.kind === 'not' ? { ...part, value: inside(written(part.value)) } : null
    })
  return print(inside(expr))
}
