import { handleByKind, type ByKind, type Expr, type TestNode } from './tree'

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
