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
  nodesOf(expr).every(
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
