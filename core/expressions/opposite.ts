import type { CompareOp, Expr } from './tree'
import type { ValueType } from './types'

const FLIPPED: Record<CompareOp, CompareOp> = {
  '=': '!=',
  '!=': '=',
  '<': '>=',
  '>=': '<',
  '>': '<=',
  '<=': '>',
}
/** Up to so many choices the rest is named one by one. */
const MOST_NAMED = 12

/**
 * The opposite of a condition as people mean it: yes turns to no, some choices to the others, at least to less than, and to or. An answer
 * that is blank makes neither true; for the exact complement there is `not(…)`.
 */
export function opposite(expr: Expr, typeOf: (name: string) => ValueType | undefined): Expr {
  const turn = (e: Expr) => opposite(e, typeOf)
  const HERE = { from: 0, to: 0 }
  switch (expr.kind) {
    case 'not':
      return expr.value
    case 'boolean':
      return { ...expr, value: !expr.value }
    case 'and':
    case 'or':
      return { kind: expr.kind === 'and' ? 'or' : 'and', parts: expr.parts.map(turn), ...HERE }
    case 'quantified':
      return { ...expr, mode: expr.mode === 'some' ? 'every' : 'some', satisfies: turn(expr.satisfies) }
    case 'name':
      return {
        kind: 'compare',
        op: '=',
        left: expr,
        right: { kind: 'boolean', value: false, ...HERE },
        ...HERE,
      }
    case 'compare': {
      if (expr.right.kind === 'boolean' && expr.op === '=')
        return { ...expr, right: { ...expr.right, value: !expr.right.value } }
      const others =
        expr.op === '=' && expr.left.kind === 'name' && expr.right.kind === 'text'
          ? rest(expr.left, [expr.right.value], typeOf)
          : null
      return others ?? { ...expr, op: FLIPPED[expr.op] }
    }
    case 'in': {
      const named = expr.tests.map(t => (t.kind === 'text' ? t.value : null))
      const others =
        expr.value.kind === 'name' && !expr.bare && !named.includes(null)
          ? rest(
              expr.value,
              named.filter(n => n !== null),
              typeOf,
            )
          : null
      return others ?? { kind: 'not', value: expr, ...HERE }
    }
    default:
      return { kind: 'not', value: expr, ...HERE }
  }
}

/** The choices of a question other than those named. */
function rest(
  name: Expr & { kind: 'name' },
  named: readonly string[],
  typeOf: (name: string) => ValueType | undefined,
): Expr | null {
  const type = typeOf(name.name)
  if (type?.kind !== 'code' || type.choices.size > MOST_NAMED) return null
  const others = [...type.choices.keys()].filter(code => !named.includes(code))
  const HERE = { from: 0, to: 0 }
  const texts = others.map((value): Expr => ({ kind: 'text', value, ...HERE }))
  const [only] = texts
  if (!only) return null
  return texts.length === 1
    ? { kind: 'compare', op: '=', left: name, right: only, ...HERE }
    : { kind: 'in', value: name, tests: texts, bare: false, ...HERE }
}
