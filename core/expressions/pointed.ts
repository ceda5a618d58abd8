import {
  OPERATORS,
  type Condition,
  type ConditionTest,
  type EntriesCondition,
  type Operator,
  type PointedKind,
} from './pointing'
import { print } from './print'
import { replaceParts } from './replace'
import { nodesOf, type CompareOp, type Expr, type ExprOf } from './tree'

/** The kind of a question, or of one inside the entries of a group. */
type KindOf = (question: string, group?: string) => PointedKind | undefined

const BLANKNESS: Partial<Record<CompareOp, Operator>> = { '=': 'isBlank', '!=': 'isAnswered' }
const ORDERED: Partial<Record<CompareOp, Operator>> = {
  '=': 'equals',
  '>=': 'atLeast',
  '>': 'moreThan',
  '<=': 'atMost',
  '<': 'lessThan',
}
const TEXT_CALLS: Partial<Record<string, Operator>> = {
  contains: 'contains',
  'starts with': 'startsWith',
  'ends with': 'endsWith',
}

/** Shows a condition as it can be pointed at. `kindOf` tells the kind of a question, undefined when there is none. */
export function conditionOf(expr: Expr, kindOf: KindOf): Condition {
  const test = testOf(expr, kindOf)
  if (test) return test
  if (expr.kind === 'and' || expr.kind === 'or') {
    return {
      kind: 'group',
      mode: expr.kind === 'and' ? 'all' : 'any',
      parts: expr.parts.map(part => conditionOf(part, kindOf)),
    }
  }
  if (expr.kind === 'not') {
    const inner = expr.value
    const parts = inner.kind === 'or' ? inner.parts : [inner]
    return { kind: 'group', mode: 'none', parts: parts.map(part => conditionOf(part, kindOf)) }
  }
  const entries = expr.kind === 'quantified' ? entriesOf(expr, kindOf) : null
  return entries ?? { kind: 'text', text: print(expr) }
}

/** `every e in engines satisfies e.hours > 5`, where nothing but answers of the entry is asked. */
function entriesOf(
  { mode, variable, over, satisfies }: ExprOf<'quantified'>,
  kindOf: KindOf,
): EntriesCondition | null {
  const group = asName(over)
  if (!group || kindOf(group) !== 'entries') return null
  const inner = withoutEntry(satisfies, variable)
  if (!inner) return null
  const condition = conditionOf(inner, name => kindOf(name, group))
  const whole: Condition =
    condition.kind === 'group' ? condition : { kind: 'group', mode: 'all', parts: [condition] }
  return { kind: 'entries', mode, group, variable, satisfies: whole }
}

/** With the questions of an entry by their own names; null where anything else is named. */
function withoutEntry(expr: Expr, variable: string): Expr | null {
  const nodes = nodesOf(expr)
  const named = nodes.filter(n => n.kind === 'name')
  const reached = nodes.filter(n => n.kind === 'path' && asName(n.of) === variable)
  const hasOwn = nodes.some(n => n.kind === 'quantified' || n.kind === 'filter')
  if (hasOwn || named.length !== reached.length) return null
  return replaceParts(expr, n =>
    n.kind === 'path' && asName(n.of) === variable ? { ...n, kind: 'name', name: n.member } : null,
  )
}

const isConstant = (expr: Expr) =>
  ['number', 'text', 'boolean', 'date', 'time', 'dateTime'].includes(expr.kind) ||
  (expr.kind === 'call' && expr.name === 'today')
const asName = (expr: Expr) => (expr.kind === 'name' ? expr.name : null)

function testOf(expr: Expr, kindOf: KindOf): ConditionTest | null {
  const test = readTest(expr, kindOf)
  const kind = test && kindOf(test.question)
  return test && kind && OPERATORS[test.operator].kinds.includes(kind) ? test : null
}

function readTest(expr: Expr, kindOf: KindOf): ConditionTest | null {
  switch (expr.kind) {
    case 'compare':
      return countedTest(expr) ?? comparedTest(expr, kindOf)
    case 'in':
      return listedTest(expr, kindOf)
    case 'between':
      return rangedTest(expr)
    case 'call':
      return calledTest(expr)
    case 'and':
      return negatedTest(expr, kindOf) ?? includesTest(expr)
    case 'or':
      return includesTest(expr)
    default:
      return null
  }
}

/** `list contains(works, "a") or list contains(works, "b")`: several codes of one multiple choice. */
function includesTest(expr: ExprOf<'and' | 'or'>): ConditionTest | null {
  const tests = expr.parts.map(part => (part.kind === 'call' ? calledTest(part) : null))
  const [first] = tests
  if (
    first?.operator !== 'includesAny' ||
    tests.some(t => t?.operator !== 'includesAny' || t.question !== first.question)
  )
    return null
  return {
    ...first,
    operator: expr.kind === 'or' ? 'includesAny' : 'includesAll',
    operands: tests.flatMap(t => t?.operands ?? []),
  }
}

/** `count(works) >= 2`. */
function countedTest({ left, op, right }: ExprOf<'compare'>): ConditionTest | null {
  const [subject] = left.kind === 'call' && left.name === 'count' ? left.args : []
  const question = subject ? asName(subject) : null
  if (!question || right.kind !== 'number' || (op !== '>=' && op !== '<=')) return null
  const operator = op === '>=' ? 'countAtLeast' : 'countAtMost'
  return { kind: 'test', question, operator, operands: [right] }
}

function comparedTest({ left, op, right }: ExprOf<'compare'>, kindOf: KindOf): ConditionTest | null {
  const question = asName(left)
  if (!question) return null
  const test = (operator: Operator, operands: Expr[]): ConditionTest => ({
    kind: 'test',
    question,
    operator,
    operands,
  })
  if (right.kind === 'null') {
    const operator = BLANKNESS[op]
    return operator ? test(operator, []) : null
  }
  if (!isConstant(right)) return null
  const kind = kindOf(question)
  if (kind === 'boolean') {
    if (op !== '=' || right.kind !== 'boolean') return null
    return test(right.value ? 'isYes' : 'isNo', [])
  }
  if (kind === 'code') return op === '=' ? test('isAnyOf', [right]) : null
  const operator = ORDERED[op]
  return operator ? test(operator, [right]) : null
}

function listedTest(expr: ExprOf<'in'>, kindOf: KindOf): ConditionTest | null {
  const question = asName(expr.value)
  if (!question || expr.bare || kindOf(question) !== 'code' || expr.tests.length < 2) return null
  const operands = expr.tests.filter(t => t.kind === 'text')
  return operands.length === expr.tests.length
    ? { kind: 'test', question, operator: 'isAnyOf', operands }
    : null
}

function rangedTest(expr: ExprOf<'between'>): ConditionTest | null {
  const question = asName(expr.value)
  return question && isConstant(expr.low) && isConstant(expr.high)
    ? { kind: 'test', question, operator: 'between', operands: [expr.low, expr.high] }
    : null
}

function calledTest(expr: ExprOf<'call'>): ConditionTest | null {
  if (expr.name === 'list contains' && expr.args[0]?.kind === 'name' && expr.args[1]?.kind === 'text')
    return { kind: 'test', question: expr.args[0].name, operator: 'includesAny', operands: [expr.args[1]] }
  const operator = TEXT_CALLS[expr.name]
  const [subject, match] = expr.args
  const question = subject && asName(subject)
  return operator && question && match?.kind === 'text'
    ? { kind: 'test', question, operator, operands: [match] }
    : null
}

/** `x != null and x != "a"` and `x != null and not(x in […])`: the builder's “is not”, which also asks for an answer. */
function negatedTest({ parts }: ExprOf<'and' | 'or'>, kindOf: KindOf): ConditionTest | null {
  const [guard, rest] = parts
  const question = guard ? answeredName(guard) : null
  if (!rest || !question || parts.length !== 2) return null
  const test = differsTest(rest, question, kindOf) ?? withoutTest(rest, kindOf)
  return test?.question === question ? test : null
}

/** The question of `x != null`. */
const answeredName = (expr: Expr): string | null =>
  expr.kind === 'compare' && expr.op === '!=' && expr.right.kind === 'null' ? asName(expr.left) : null

function differsTest(expr: Expr, question: string, kindOf: KindOf): ConditionTest | null {
  if (expr.kind !== 'compare' || expr.op !== '!=' || !isConstant(expr.right)) return null
  if (asName(expr.left) !== question) return null
  const operator = kindOf(question) === 'code' ? 'isNoneOf' : 'differs'
  return { kind: 'test', question, operator, operands: [expr.right] }
}

function withoutTest(expr: Expr, kindOf: KindOf): ConditionTest | null {
  if (expr.kind !== 'not') return null
  const { value } = expr
  if (value.kind === 'in') {
    const listed = listedTest(value, kindOf)
    return listed && { ...listed, operator: 'isNoneOf' }
  }
  const included = includedTest(value)
  return included?.operator === 'includesAny' ? { ...included, operator: 'includesNone' } : null
}

function includedTest(expr: Expr): ConditionTest | null {
  if (expr.kind === 'call') return calledTest(expr)
  return expr.kind === 'or' ? includesTest(expr) : null
}
