import { compareNumbers, numberText } from './decimal'
import type { Expr, ExprOf, TestNode } from './tree'

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
export function print(expr: Expr): string {
  switch (expr.kind) {
    case 'number':
      return numberText(expr.value)
    case 'text':
      return JSON.stringify(expr.value)
    case 'boolean':
      return String(expr.value)
    case 'null':
      return 'null'
    case 'date':
    case 'time':
    case 'dateTime':
    case 'duration':
      return `@"${expr.value}"`
    case 'name':
      return expr.name
    case 'list':
      return `[${expr.items.map(print).join(', ')}]`
    case 'compare':
      return `${inside(expr.left, 4)} ${expr.op} ${inside(expr.right, 4)}`
    case 'between':
      return `${inside(expr.value, 4)} between ${inside(expr.low, 4)} and ${inside(expr.high, 4)}`
    case 'in':
      return `${inside(expr.value, 4)} in ${testsText(expr)}`
    case 'and':
    case 'or':
      return expr.parts.map(part => junctionPart(part, STRENGTH[expr.kind] + 1)).join(` ${expr.kind} `)
    case 'not':
      return `not(${print(expr.value)})`
    case 'arithmetic':
      return arithmetic(expr)
    case 'negate':
      return `-${inside(expr.value, expr.value.kind === 'number' ? 10 : 8)}`
    case 'if':
      return `if ${print(expr.test)} then ${print(expr.then)} else ${print(expr.else)}`
    case 'call':
      return `${expr.name}(${expr.args.map(print).join(', ')})`
    case 'path':
      return `${inside(expr.of, 9)}.${expr.member}`
    case 'filter':
      return `${inside(expr.of, 9)}[${print(expr.by)}]`
    case 'quantified':
      return `${expr.mode} ${expr.variable} in ${inside(expr.over, 4)} satisfies ${print(expr.satisfies)}`
  }
}

const inside = (expr: Expr, needed: number) => (strengthOf(expr) < needed ? `(${print(expr)})` : print(expr))
const junctionPart = (expr: Expr, needed: number) =>
  expr.kind === 'in' ? `(${print(expr)})` : inside(expr, needed)

function arithmetic(expr: ExprOf<'arithmetic'>): string {
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
