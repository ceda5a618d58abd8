import type { CompareOp, Expr, ExprOf } from './tree'

const FLIPPED: Record<CompareOp, CompareOp> = {
  '=': '!=',
  '!=': '=',
  '<': '>=',
  '>=': '<',
  '>': '<=',
  '<=': '>',
}
const HERE = { from: 0, to: 0 }

/**
 * The opposite of a condition as people mean it: yes turns to no, some choices to none of them (whatever choices are added later), at least
 * to less than, and to or. An answer that is blank makes neither true; for the exact complement there is `not(…)`.
 */
export function oppositeCondition(expr: Expr): Expr {
  switch (expr.kind) {
    case 'not':
      return expr.value
    case 'boolean':
      return { ...expr, value: !expr.value }
    case 'and':
      return exceptedBy(expr) ?? { kind: 'or', parts: expr.parts.map(oppositeCondition), ...HERE }
    case 'or':
      return includedIn(expr) ?? { kind: 'and', parts: expr.parts.map(oppositeCondition), ...HERE }
    case 'quantified':
      return {
        ...expr,
        mode: expr.mode === 'some' ? 'every' : 'some',
        satisfies: oppositeCondition(expr.satisfies),
      }
    case 'name':
      return {
        kind: 'compare',
        op: '=',
        left: expr,
        right: { kind: 'boolean', value: false, ...HERE },
        ...HERE,
      }
    case 'compare':
      return oppositeComparison(expr)
    case 'in':
      return butAnswered(expr.value, complement(expr))
    case 'call':
      return butAnswered(subjectOf(expr), complement(expr))
    default:
      return complement(expr)
  }
}

const complement = (value: Expr): Expr => ({ kind: 'not', value, ...HERE })

function oppositeComparison(expr: ExprOf<'compare'>): Expr {
  const turned: Expr = { ...expr, op: FLIPPED[expr.op] }
  if (expr.op !== '=' || expr.right.kind === 'null') return turned
  if (expr.right.kind === 'boolean') return { ...expr, right: { ...expr.right, value: !expr.right.value } }
  return butAnswered(expr.left, turned)
}

/** “Is not” asks for an answer too, where it is one question that is asked. */
function butAnswered(asked: Expr | undefined, rest: Expr): Expr {
  if (asked?.kind !== 'name') return rest
  const answered: Expr = {
    kind: 'compare',
    op: '!=',
    left: asked,
    right: { kind: 'null', ...HERE },
    ...HERE,
  }
  return { kind: 'and', parts: [answered, rest], ...HERE }
}

/** What a test by a function is about: `contains(name, "x")`. */
const subjectOf = ({ args }: ExprOf<'call'>): Expr | undefined => args[0]

/** `x != null and x != "a"` was itself made by turning `x = "a"`, and goes back to it. */
function exceptedBy({ parts }: ExprOf<'and'>): Expr | null {
  const [guard, rest] = parts
  if (!guard || !rest || parts.length > 2 || guard.kind !== 'compare') return null
  const { left, op, right } = guard
  if (op !== '!=' || left.kind !== 'name' || right.kind !== 'null') return null
  const positive = oppositeOfRest(rest)
  const about = positive && nameAsked(positive)
  return about === left.name ? positive : null
}

function oppositeOfRest(rest: Expr): Expr | null {
  if (rest.kind === 'not') return rest.value
  return rest.kind === 'compare' && rest.op === '!=' ? { ...rest, op: '=' } : null
}

/** `list contains(works, "a") or list contains(works, "b")`: several choices of one question. */
function includedIn(expr: ExprOf<'or'>): Expr | null {
  const [first] = expr.parts
  const asked = first && nameAsked(first)
  const isOne = expr.parts.every(p => p.kind === 'call' && nameAsked(p) === asked)
  return isOne && first?.kind === 'call' ? butAnswered(subjectOf(first), complement(expr)) : null
}

/** The question that a test of one question is about. */
function nameAsked(expr: Expr): string | null {
  if (expr.kind === 'compare') return expr.left.kind === 'name' ? expr.left.name : null
  if (expr.kind === 'in') return expr.value.kind === 'name' ? expr.value.name : null
  if (expr.kind === 'or') return expr.parts[0] ? nameAsked(expr.parts[0]) : null
  const subject = expr.kind === 'call' ? subjectOf(expr) : undefined
  return subject?.kind === 'name' ? subject.name : null
}
