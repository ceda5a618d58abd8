import type { CompareOp, Expr, ExprOf } from './tree'
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

type TypeOf = (name: string) => ValueType | undefined
const HERE = { from: 0, to: 0 }

/**
 * The opposite of a condition as people mean it: yes turns to no, some choices to the others, at least to less than, and to or. An answer
 * that is blank makes neither true; for the exact complement there is `not(…)`.
 */
export function oppositeCondition(expr: Expr, typeOf: TypeOf): Expr {
  const turn = (e: Expr) => oppositeCondition(e, typeOf)
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
    case 'compare':
      return oppositeComparison(expr, typeOf)
    case 'in':
      return oppositeMembership(expr, typeOf)
    default:
      return { kind: 'not', value: expr, ...HERE }
  }
}

function oppositeComparison(expr: ExprOf<'compare'>, typeOf: TypeOf): Expr {
  const turned: Expr = { ...expr, op: FLIPPED[expr.op] }
  if (expr.op !== '=') return turned
  if (expr.right.kind === 'boolean') return { ...expr, right: { ...expr.right, value: !expr.right.value } }
  if (expr.left.kind !== 'name' || expr.right.kind !== 'text') return turned
  return otherChoices(expr.left, [expr.right.value], typeOf) ?? turned
}

function oppositeMembership(expr: ExprOf<'in'>, typeOf: TypeOf): Expr {
  const turned: Expr = { kind: 'not', value: expr, ...HERE }
  const named = expr.tests.flatMap(t => (t.kind === 'text' ? [t.value] : []))
  if (expr.value.kind !== 'name' || expr.bare || named.length < expr.tests.length) return turned
  return otherChoices(expr.value, named, typeOf) ?? turned
}

/** The choices of a question other than those named. */
function otherChoices(name: ExprOf<'name'>, named: readonly string[], typeOf: TypeOf): Expr | null {
  const type = typeOf(name.name)
  if (type?.kind !== 'code' || type.choices.size > MOST_NAMED) return null
  const others = [...type.choices.keys()].filter(code => !named.includes(code))
  const texts = others.map((value): Expr => ({ kind: 'text', value, ...HERE }))
  const [only] = texts
  if (!only) return null
  return texts.length === 1
    ? { kind: 'compare', op: '=', left: name, right: only, ...HERE }
    : { kind: 'in', value: name, tests: texts, bare: false, ...HERE }
}
