import { nodesOf, type CompareOp, type Expr, type TestNode } from '../../expressions/tree'

/** The position of nodes that were built, not read. */
export const HERE = { from: 0, to: 0 }
/** A comparison with its sides changed over. */
export const FLIPPED: Record<CompareOp, CompareOp> = {
  '=': '=',
  '!=': '!=',
  '<': '>',
  '<=': '>=',
  '>': '<',
  '>=': '<=',
}

const STRICT_CALLS: ReadonlySet<string> = new Set([
  'string length',
  'upper case',
  'lower case',
  'contains',
  'starts with',
  'ends with',
  'abs',
  'floor',
  'ceiling',
  'sum',
  'mean',
  'min',
  'max',
])

/** Whether a blank anywhere in it makes the whole unknown. */
export const isStrict = (expr: Expr): boolean =>
  [...nodesOf(expr)].every(
    node =>
      ([
        'number',
        'text',
        'date',
        'time',
        'dateTime',
        'duration',
        'name',
        'compare',
        'arithmetic',
        'negate',
        'between',
      ].includes(node.kind) &&
        !(node.kind === 'compare' && node !== expr)) ||
      (node.kind === 'call' && (STRICT_CALLS.has(node.name) || node.name === 'today')),
  )

export const twoSided = (
  value: Expr,
  low: { op: CompareOp; value: Expr },
  high: { op: CompareOp; value: Expr },
): Expr => ({
  kind: 'and',
  ...HERE,
  parts: [low, high].map(end => ({ kind: 'compare', op: end.op, left: value, right: end.value, ...HERE })),
})

export function testExpression(value: Expr, test: TestNode): Expr {
  if (test.kind === 'range')
    return twoSided(
      value,
      { op: test.lowOpen ? '>' : '>=', value: test.low },
      { op: test.highOpen ? '<' : '<=', value: test.high },
    )
  if (test.kind === 'unaryTest')
    return { kind: 'compare', op: test.op, left: value, right: test.value, ...HERE }
  return { kind: 'compare', op: '=', left: value, right: test, ...HERE }
}

/** An expression with some of its parts replaced, the outer ones first; null leaves a part as it is. */
export function replaced(expr: Expr, by: (node: Expr) => Expr | null): Expr {
  const inside = (e: Expr): Expr => replaced(e, by)
  const test = (t: TestNode): TestNode =>
    t.kind === 'range'
      ? { ...t, low: inside(t.low), high: inside(t.high) }
      : t.kind === 'unaryTest'
        ? { ...t, value: inside(t.value) }
        : inside(t)
  const other = by(expr)
  if (other) return other
  switch (expr.kind) {
    case 'number':
    case 'text':
    case 'boolean':
    case 'null':
    case 'name':
    case 'date':
    case 'time':
    case 'dateTime':
    case 'duration':
      return expr
    case 'list':
      return { ...expr, items: expr.items.map(inside) }
    case 'compare':
    case 'arithmetic':
      return { ...expr, left: inside(expr.left), right: inside(expr.right) }
    case 'between':
      return { ...expr, value: inside(expr.value), low: inside(expr.low), high: inside(expr.high) }
    case 'in':
      return { ...expr, value: inside(expr.value), tests: expr.tests.map(test) }
    case 'and':
    case 'or':
      return { ...expr, parts: expr.parts.map(inside) }
    case 'not':
    case 'negate':
      return { ...expr, value: inside(expr.value) }
    case 'if':
      return { ...expr, test: inside(expr.test), then: inside(expr.then), else: inside(expr.else) }
    case 'call':
      return { ...expr, args: expr.args.map(inside) }
    case 'path':
      return { ...expr, of: inside(expr.of) }
    case 'filter':
      return { ...expr, of: inside(expr.of), by: inside(expr.by) }
    case 'quantified':
      return { ...expr, over: inside(expr.over), satisfies: inside(expr.satisfies) }
  }
}
