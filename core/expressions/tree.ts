import type { Num } from './decimal'

/** Where something stands in the text of an expression: offsets in UTF-16 units, `to` exclusive. */
export interface Span {
  from: number
  to: number
}

export type CompareOp = '=' | '!=' | '<' | '<=' | '>' | '>='
export type ArithmeticOp = '+' | '-' | '*' | '/' | '**'

/** An interval on the right of `in`: `[1..5]`, `(1..5]`, … */
export interface RangeNode extends Span {
  kind: 'range'
  low: Expr
  high: Expr
  lowOpen: boolean
  highOpen: boolean
}
/** A comparison without its left side on the right of `in`: `x in (< 3, > 9)`. */
export interface UnaryTestNode extends Span {
  kind: 'unaryTest'
  op: CompareOp
  value: Expr
}
export type TestNode = Expr | RangeNode | UnaryTestNode

/**
 * The tree of an expression: the subset of FEEL (OMG DMN 1.5, clause 10.3) that forms use.
 * Every node carries its position in the text it was read from; built nodes carry 0..0.
 */
export type Expr =
  | (Span & { kind: 'number'; value: Num })
  | (Span & { kind: 'text'; value: string })
  | (Span & { kind: 'boolean'; value: boolean })
  | (Span & { kind: 'null' })
  /** ISO 8601 texts: `2026-05-01`, `10:30:00`, `2026-05-01T10:30:00`, `P3D`. */
  | (Span & { kind: 'date' | 'time' | 'dateTime' | 'duration'; value: string })
  | (Span & { kind: 'name'; name: string })
  | (Span & { kind: 'list'; items: Expr[] })
  | (Span & { kind: 'compare'; op: CompareOp; left: Expr; right: Expr })
  | (Span & { kind: 'between'; value: Expr; low: Expr; high: Expr })
  /** `bare`: one test written without brackets, which may be a list (`x in xs`). */
  | (Span & { kind: 'in'; value: Expr; tests: TestNode[]; bare: boolean })
  | (Span & { kind: 'and' | 'or'; parts: Expr[] })
  | (Span & { kind: 'not'; value: Expr })
  | (Span & { kind: 'arithmetic'; op: ArithmeticOp; left: Expr; right: Expr })
  | (Span & { kind: 'negate'; value: Expr })
  | (Span & { kind: 'if'; test: Expr; then: Expr; else: Expr })
  | (Span & { kind: 'call'; name: string; args: Expr[] })
  /** A member of a value (`stay.days`), or of every entry of a repeating group (`engines.power`). */
  | (Span & { kind: 'path'; of: Expr; member: string })
  /** The items for which a condition holds (`engines[power > 5]`), or one item by its number (`engines[1]`). */
  | (Span & { kind: 'filter'; of: Expr; by: Expr })
  | (Span & { kind: 'quantified'; mode: 'some' | 'every'; variable: string; over: Expr; satisfies: Expr })

export type ExprOf<K extends Expr['kind']> = Extract<Expr, { kind: K }>

/** The expressions directly inside one, in the order of the text. */
export function childrenOf(expr: Expr | RangeNode | UnaryTestNode): Expr[] {
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
      return []
    case 'list':
      return expr.items
    case 'compare':
    case 'arithmetic':
      return [expr.left, expr.right]
    case 'between':
      return [expr.value, expr.low, expr.high]
    case 'in':
      return [
        expr.value,
        ...expr.tests.flatMap(t => (t.kind === 'range' || t.kind === 'unaryTest' ? childrenOf(t) : [t])),
      ]
    case 'and':
    case 'or':
      return expr.parts
    case 'not':
    case 'negate':
      return [expr.value]
    case 'if':
      return [expr.test, expr.then, expr.else]
    case 'call':
      return expr.args
    case 'path':
      return [expr.of]
    case 'filter':
      return [expr.of, expr.by]
    case 'quantified':
      return [expr.over, expr.satisfies]
    case 'range':
      return [expr.low, expr.high]
    case 'unaryTest':
      return [expr.value]
  }
}

/** Every node of an expression, the outer ones first. */
export function* nodesOf(expr: Expr): Generator<Expr> {
  yield expr
  for (const child of childrenOf(expr)) yield* nodesOf(child)
}

/** Names with a meaning of their own: the row being narrowed, the item being filtered. */
export const BOUND_NAMES: ReadonlySet<string> = new Set(['row', 'item'])

const NAMES = new WeakMap<Expr, readonly string[]>()

/** The question codes that an expression names, each once, in the order of the text; what it binds itself is left out. Trees don't change. */
export function namesIn(expr: Expr): readonly string[] {
  const known = NAMES.get(expr)
  if (known) return known
  const names = new Set<string>()
  const visit = (node: Expr, bound: readonly string[]) => {
    if (node.kind === 'name' && !BOUND_NAMES.has(node.name) && !bound.includes(node.name))
      names.add(node.name)
    if (node.kind === 'quantified') {
      visit(node.over, bound)
      visit(node.satisfies, [...bound, node.variable])
      return
    }
    for (const child of childrenOf(node)) visit(child, bound)
  }
  visit(expr, [])
  const found = [...names]
  NAMES.set(expr, found)
  return found
}
