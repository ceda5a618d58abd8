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

/** Nodes of several kinds that hold the same, each kind by itself. */
type Nodes<K extends string, T = unknown> = K extends unknown ? Span & { kind: K } & T : never

/**
 * The tree of an expression: the subset of FEEL (OMG DMN 1.5, clause 10.3) that forms use.
 * Every node carries its position in the text it was read from; built nodes carry 0..0.
 */
export type Expr =
  | Nodes<'number', { value: Num }>
  | Nodes<'text', { value: string }>
  | Nodes<'boolean', { value: boolean }>
  | Nodes<'null'>
  /** ISO 8601 texts: `2026-05-01`, `10:30:00`, `2026-05-01T10:30:00`, `P3D`. */
  | Nodes<'date' | 'time' | 'dateTime' | 'duration', { value: string }>
  | Nodes<'name', { name: string }>
  | Nodes<'list', { items: Expr[] }>
  | Nodes<'compare', { op: CompareOp; left: Expr; right: Expr }>
  | Nodes<'between', { value: Expr; low: Expr; high: Expr }>
  /** `bare`: one test written without brackets, which may be a list (`x in xs`). */
  | Nodes<'in', { value: Expr; tests: TestNode[]; bare: boolean }>
  | Nodes<'and' | 'or', { parts: Expr[] }>
  | Nodes<'not' | 'negate', { value: Expr }>
  | Nodes<'arithmetic', { op: ArithmeticOp; left: Expr; right: Expr }>
  | Nodes<'if', { test: Expr; then: Expr; else: Expr }>
  | Nodes<'call', { name: string; args: Expr[] }>
  /** A member of a value (`stay.days`), or of every entry of a repeating group (`engines.power`). */
  | Nodes<'path', { of: Expr; member: string }>
  /** The items for which a condition holds (`engines[power > 5]`), or one item by its number (`engines[1]`). */
  | Nodes<'filter', { of: Expr; by: Expr }>
  | Nodes<'quantified', { mode: 'some' | 'every'; variable: string; over: Expr; satisfies: Expr }>

export type ExprKind = Expr['kind']
export type ExprOf<K extends ExprKind> = Extract<Expr, { kind: K }>

/** What is done with an expression, kind by kind: the compiler names a table that misses one. */
export type ByKind<Result, More extends unknown[] = []> = {
  readonly [K in ExprKind]: (expr: ExprOf<K>, ...more: More) => Result
}

/** Does with an expression what a table says for its kind. */
export function handleByKind<Result, More extends unknown[], K extends ExprKind>(
  table: ByKind<Result, More>,
  expr: ExprOf<K>,
  ...more: More
): Result {
  const kind: K = expr.kind
  return table[kind](expr, ...more)
}

const none = (): Expr[] => []
const leftAndRight = (e: { left: Expr; right: Expr }): Expr[] => [e.left, e.right]
const valueOnly = (e: { value: Expr }): Expr[] => [e.value]
const allParts = (e: { parts: Expr[] }): Expr[] => e.parts

const CHILDREN: ByKind<Expr[]> = {
  number: none,
  text: none,
  boolean: none,
  null: none,
  name: none,
  date: none,
  time: none,
  dateTime: none,
  duration: none,
  list: e => e.items,
  compare: leftAndRight,
  arithmetic: leftAndRight,
  between: e => [e.value, e.low, e.high],
  in: e => [e.value, ...e.tests.flatMap(valuesOfTest)],
  and: allParts,
  or: allParts,
  not: valueOnly,
  negate: valueOnly,
  if: e => [e.test, e.then, e.else],
  call: e => e.args,
  path: e => [e.of],
  filter: e => [e.of, e.by],
  quantified: e => [e.over, e.satisfies],
}

/** The expressions in what stands on the right of `in`. */
export function valuesOfTest(test: TestNode): Expr[] {
  if (test.kind === 'range') return [test.low, test.high]
  return test.kind === 'unaryTest' ? [test.value] : [test]
}

/** The expressions directly inside one, in the order of the text. */
export const childrenOf = (expr: Expr): Expr[] => handleByKind(CHILDREN, expr)

const NODES = new WeakMap<Expr, readonly Expr[]>()

/** Every node of an expression, the outer ones first. Trees don't change. */
export function nodesOf(expr: Expr): readonly Expr[] {
  const known = NODES.get(expr)
  if (known) return known
  const nodes: Expr[] = []
  const visit = (node: Expr) => {
    nodes.push(node)
    childrenOf(node).forEach(visit)
  }
  visit(expr)
  NODES.set(expr, nodes)
  return nodes
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

/** What an expression reaches through something else, each once: `power` of `engines.power`. */
export const membersIn = (expr: Expr): string[] => [
  ...new Set(nodesOf(expr).flatMap(node => (node.kind === 'path' ? [node.member] : []))),
]
