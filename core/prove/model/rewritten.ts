import {
  handleByKind,
  nodesOf,
  type ByKind,
  type CompareOp,
  type Expr,
  type TestNode,
} from '../../expressions/tree'

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
export function replaceParts(expr: Expr, by: (node: Expr) => Expr | null): Expr {
  const other = by(expr)
  if (other) return other
  return handleByKind(REBUILT, expr, e => replaceParts(e, by))
}

type Inside = (expr: Expr) => Expr
const same = (e: Expr): Expr => e

/** By kind: the expression with what stands inside it rewritten. */
const REBUILT: ByKind<Expr, [inside: Inside]> = {
  number: same,
  text: same,
  boolean: same,
  null: same,
  name: same,
  date: same,
  time: same,
  dateTime: same,
  duration: same,
  list: (e, inside) => ({ ...e, items: e.items.map(inside) }),
  compare: (e, inside) => ({ ...e, left: inside(e.left), right: inside(e.right) }),
  arithmetic: (e, inside) => ({ ...e, left: inside(e.left), right: inside(e.right) }),
  between: (e, inside) => ({ ...e, value: inside(e.value), low: inside(e.low), high: inside(e.high) }),
  in: (e, inside) => ({ ...e, value: inside(e.value), tests: e.tests.map(t => rebuiltTest(t, inside)) }),
  and: (e, inside) => ({ ...e, parts: e.parts.map(inside) }),
  or: (e, inside) => ({ ...e, parts: e.parts.map(inside) }),
  not: (e, inside) => ({ ...e, value: inside(e.value) }),
  negate: (e, inside) => ({ ...e, value: inside(e.value) }),
  if: (e, inside) => ({ ...e, test: inside(e.test), then: inside(e.then), else: inside(e.else) }),
  call: (e, inside) => ({ ...e, args: e.args.map(inside) }),
  path: (e, inside) => ({ ...e, of: inside(e.of) }),
  filter: (e, inside) => ({ ...e, of: inside(e.of), by: inside(e.by) }),
  quantified: (e, inside) => ({ ...e, over: inside(e.over), satisfies: inside(e.satisfies) }),
}

function rebuiltTest(test: TestNode, inside: Inside): TestNode {
  if (test.kind === 'range') return { ...test, low: inside(test.low), high: inside(test.high) }
  return test.kind === 'unaryTest' ? { ...test, value: inside(test.value) } : inside(test)
}
