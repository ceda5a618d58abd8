import { compareNumbers, numberText } from './decimal'
import { handleByKind, type ByKind, type Expr, type ExprOf, type TestNode } from './tree'

/** Binding strength by kind; an operand that binds less than its place needs is bracketed. */
const STRENGTH: Record<Expr['kind'], number> = {
  if: 0,
  quantified: 0,
  or: 1,
  and: 2,
  compare: 3,
  between: 3,
  in: 3,
  arithmetic: 4,
  negate: 8,
  path: 9,
  filter: 9,
  number: 9,
  text: 9,
  boolean: 9,
  null: 9,
  date: 9,
  time: 9,
  dateTime: 9,
  duration: 9,
  name: 9,
  list: 9,
  not: 9,
  call: 9,
}
const ARITHMETIC = { '+': 4, '-': 4, '*': 5, '/': 5, '**': 6 } as const

const strengthOf = (expr: Expr): number => {
  if (expr.kind === 'arithmetic') return ARITHMETIC[expr.op]
  if (expr.kind === 'number' && compareNumbers(expr.value, 0) < 0) return STRENGTH.negate
  return STRENGTH[expr.kind]
}

/**
 * The text of an expression in FEEL. `parse(print(e))` gives `e` again (but for positions), and printing that gives the same
 * text. Brackets stand only where they are needed, and around `in` inside `and` and `or`, which readers of FEEL with a looser
 * grammar would otherwise misread.
 */
export const print = (expr: Expr): string => handleByKind(TEXTS, expr)

const quoted = (e: { value: string }) => `@"${e.value}"`
const junction = (e: ExprOf<'and' | 'or'>) =>
  e.parts.map(part => junctionPart(part, STRENGTH[e.kind] + 1)).join(` ${e.kind} `)

const TEXTS: ByKind<string> = {
  number: e => numberText(e.value),
  text: e => JSON.stringify(e.value),
  boolean: e => String(e.value),
  null: () => 'null',
  date: quoted,
  time: quoted,
  dateTime: quoted,
  duration: quoted,
  name: e => e.name,
  list: e => `[${e.items.map(print).join(', ')}]`,
  compare: e => `${inside(e.left, 4)} ${e.op} ${inside(e.right, 4)}`,
  between: e => `${inside(e.value, 4)} between ${inside(e.low, 4)} and ${inside(e.high, 4)}`,
  in: e => `${inside(e.value, 4)} in ${testsText(e)}`,
  and: junction,
  or: junction,
  not: e => `not(${print(e.value)})`,
  arithmetic: e => arithmeticText(e),
  negate: e => `-${inside(e.value, e.value.kind === 'number' ? 10 : 8)}`,
  if: e => `if ${print(e.test)} then ${print(e.then)} else ${print(e.else)}`,
  call: e => `${e.name}(${e.args.map(print).join(', ')})`,
  path: e => `${inside(e.of, 9)}.${e.member}`,
  filter: e => `${inside(e.of, 9)}[${print(e.by)}]`,
  quantified: e => `${e.mode} ${e.variable} in ${inside(e.over, 4)} satisfies ${print(e.satisfies)}`,
}

const inside = (expr: Expr, needed: number) => (strengthOf(expr) < needed ? `(${print(expr)})` : print(expr))
const junctionPart = (expr: Expr, needed: number) =>
  expr.kind === 'in' ? `(${print(expr)})` : inside(expr, needed)

function arithmeticText(expr: ExprOf<'arithmetic'>): string {
  const own = ARITHMETIC[expr.op]
  // Powers and signs: tools differ in how `-a ** b` and `a ** b ** c` group, so both are always bracketed.
  const [left, right] = expr.op === '**' ? [9, 9] : [own, own + 1]
  return `${inside(expr.left, left)} ${expr.op} ${inside(expr.right, right)}`
}

function testsText(expr: ExprOf<'in'>): string {
  const [only] = expr.tests
  if (expr.bare && only) return bareText(only)
  const isList = expr.tests.every(t => t.kind !== 'range' && t.kind !== 'unaryTest')
  if (isList) return `[${expr.tests.map(testText).join(', ')}]`
  return expr.tests.length === 1 && only?.kind === 'range'
    ? testText(only)
    : `(${expr.tests.map(testText).join(', ')})`
}

/** A list literal alone would read as the tests themselves; other compound values need brackets. */
const bareText = (test: TestNode) => {
  if (test.kind === 'range' || test.kind === 'unaryTest') return testText(test)
  return strengthOf(test) >= 4 && test.kind !== 'list' ? print(test) : `(${print(test)})`
}

function testText(test: TestNode): string {
  if (test.kind === 'unaryTest') return `${test.op} ${inside(test.value, 4)}`
  if (test.kind !== 'range') return print(test)
  return `${test.lowOpen ? '(' : '['}${inside(test.low, 4)}..${inside(test.high, 4)}${test.highOpen ? ')' : ']'}`
}
