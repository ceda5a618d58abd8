import { parse } from './parse'
import { print } from './print'
import type { CompareOp, Expr, ExprOf } from './tree'

/**
 * Conditions as people build them by pointing: groups of tests on one question each. What can't be pointed at stays in the
 * tree as text, so that every condition can be shown, and none is lost, either way.
 */
export type Condition = ConditionGroup | ConditionTest | { kind: 'text'; text: string }
export interface ConditionGroup {
  kind: 'group'
  mode: 'all' | 'any' | 'none'
  parts: Condition[]
}
export interface ConditionTest {
  kind: 'test'
  question: string
  operator: Operator
  operands: Expr[]
}

export type Operator =
  | 'isAnyOf'
  | 'isNoneOf'
  | 'isYes'
  | 'isNo'
  | 'isAnswered'
  | 'isBlank'
  | 'equals'
  | 'differs'
  | 'atLeast'
  | 'moreThan'
  | 'atMost'
  | 'lessThan'
  | 'between'
  | 'contains'
  | 'startsWith'
  | 'endsWith'
  | 'includesAny'
  | 'includesAll'
  | 'includesNone'
  | 'countAtLeast'
  | 'countAtMost'

/** The kinds of question that the builder tells apart, by the type of their answers. */
export type PointedKind =
  'code' | 'codes' | 'boolean' | 'number' | 'date' | 'time' | 'dateTime' | 'text' | 'entries'

interface OperatorEntry {
  words: string
  dateWords?: string
  kinds: readonly PointedKind[]
  operands: number | 'many'
}
const TIMES = ['date', 'time', 'dateTime'] as const

/** Every operator with its words, the kinds of question that it fits, and how many values it takes. */
export const OPERATORS: Readonly<Record<Operator, OperatorEntry>> = {
  isAnyOf: { words: 'is any of', kinds: ['code'], operands: 'many' },
  isNoneOf: { words: 'is answered, with none of', kinds: ['code'], operands: 'many' },
  isYes: { words: 'is yes', kinds: ['boolean'], operands: 0 },
  isNo: { words: 'is no', kinds: ['boolean'], operands: 0 },
  includesAny: { words: 'includes any of', kinds: ['codes'], operands: 'many' },
  includesAll: { words: 'includes all of', kinds: ['codes'], operands: 'many' },
  includesNone: { words: 'is answered, without any of', kinds: ['codes'], operands: 'many' },
  countAtLeast: { words: 'counts at least', kinds: ['codes', 'entries'], operands: 1 },
  countAtMost: { words: 'counts at most', kinds: ['codes', 'entries'], operands: 1 },
  equals: { words: 'is', kinds: ['number', ...TIMES, 'text'], operands: 1 },
  differs: { words: 'is answered, but is not', kinds: ['number', ...TIMES, 'text'], operands: 1 },
  atLeast: { words: 'is at least', dateWords: 'is not before', kinds: ['number', 'date'], operands: 1 },
  moreThan: { words: 'is more than', dateWords: 'is after', kinds: ['number', 'date'], operands: 1 },
  atMost: { words: 'is at most', dateWords: 'is not after', kinds: ['number', 'date'], operands: 1 },
  lessThan: { words: 'is less than', dateWords: 'is before', kinds: ['number', 'date'], operands: 1 },
  between: { words: 'is between', kinds: ['number', 'date'], operands: 2 },
  contains: { words: 'contains', kinds: ['text'], operands: 1 },
  startsWith: { words: 'starts with', kinds: ['text'], operands: 1 },
  endsWith: { words: 'ends with', kinds: ['text'], operands: 1 },
  isAnswered: {
    words: 'is answered',
    kinds: ['code', 'codes', 'boolean', 'number', ...TIMES, 'text'],
    operands: 0,
  },
  isBlank: {
    words: 'is blank',
    kinds: ['code', 'codes', 'boolean', 'number', ...TIMES, 'text'],
    operands: 0,
  },
}

const HERE = { from: 0, to: 0 }
const ORDERED: Partial<Record<Operator, CompareOp>> = {
  equals: '=',
  atLeast: '>=',
  moreThan: '>',
  atMost: '<=',
  lessThan: '<',
}
const TEXT_CALLS: Partial<Record<Operator, string>> = {
  contains: 'contains',
  startsWith: 'starts with',
  endsWith: 'ends with',
}

const nameNode = (name: string): Expr => ({ kind: 'name', name, ...HERE })
const compareNode = (question: string, op: CompareOp, right: Expr): Expr => ({
  kind: 'compare',
  op,
  left: nameNode(question),
  right,
  ...HERE,
})
const answered = (question: string) => compareNode(question, '!=', { kind: 'null', ...HERE })

/** The expression of a condition; null while it is unfinished (a test without its value, an empty group). */
export function expressionOf(condition: Condition): Expr | null {
  if (condition.kind === 'text') return parse(condition.text)
  if (condition.kind === 'test') return testExpression(condition)
  const parts = condition.parts.map(expressionOf)
  const whole = parts.filter(p => p !== null)
  const [only] = whole
  if (!only || whole.length < parts.length) return null
  const inner: Expr =
    whole.length === 1 ? only : { kind: condition.mode === 'all' ? 'and' : 'or', parts: whole, ...HERE }
  return condition.mode === 'none' ? { kind: 'not', value: inner, ...HERE } : inner
}

function testExpression({ question, operator, operands }: ConditionTest): Expr | null {
  const wanted = OPERATORS[operator].operands
  if (!question || (wanted === 'many' ? operands.length === 0 : operands.length !== wanted)) return null
  const [first, second] = operands
  switch (operator) {
    case 'isAnswered':
      return answered(question)
    case 'isBlank':
      return compareNode(question, '=', { kind: 'null', ...HERE })
    case 'isYes':
    case 'isNo':
      return compareNode(question, '=', { kind: 'boolean', value: operator === 'isYes', ...HERE })
    case 'isAnyOf':
      return anyOf(question, operands)
    case 'isNoneOf': {
      const inner = anyOf(question, operands)
      const none: Expr =
        operands.length === 1 && first
          ? compareNode(question, '!=', first)
          : { kind: 'not', value: inner, ...HERE }
      return { kind: 'and', parts: [answered(question), none], ...HERE }
    }
    case 'includesAny':
      return joined(
        'or',
        operands.map(o => includes(question, o)),
      )
    case 'includesAll':
      return joined(
        'and',
        operands.map(o => includes(question, o)),
      )
    case 'includesNone':
      return {
        kind: 'and',
        parts: [
          answered(question),
          {
            kind: 'not',
            value: joined(
              'or',
              operands.map(o => includes(question, o)),
            ),
            ...HERE,
          },
        ],
        ...HERE,
      }
    case 'countAtLeast':
    case 'countAtMost':
      return first
        ? {
            kind: 'compare',
            op: operator === 'countAtLeast' ? '>=' : '<=',
            left: { kind: 'call', name: 'count', args: [nameNode(question)], ...HERE },
            right: first,
            ...HERE,
          }
        : null
    case 'differs':
      return first
        ? { kind: 'and', parts: [answered(question), compareNode(question, '!=', first)], ...HERE }
        : null
    case 'between':
      return first && second
        ? { kind: 'between', value: nameNode(question), low: first, high: second, ...HERE }
        : null
    default: {
      const op = ORDERED[operator]
      const call = TEXT_CALLS[operator]
      if (!first) return null
      if (op) return compareNode(question, op, first)
      return call ? { kind: 'call', name: call, args: [nameNode(question), first], ...HERE } : null
    }
  }
}

const includes = (question: string, code: Expr): Expr => ({
  kind: 'call',
  name: 'list contains',
  args: [nameNode(question), code],
  ...HERE,
})
const joined = (kind: 'and' | 'or', parts: Expr[]): Expr => {
  const [only] = parts
  return parts.length === 1 && only ? only : { kind, parts, ...HERE }
}

const anyOf = (question: string, operands: Expr[]): Expr => {
  const [only] = operands
  return operands.length === 1 && only
    ? compareNode(question, '=', only)
    : { kind: 'in', value: nameNode(question), tests: operands, bare: false, ...HERE }
}

/** Shows a condition as it can be pointed at. `kindOf` tells the kind of a question, undefined when there is none. */
export function conditionOf(expr: Expr, kindOf: (question: string) => PointedKind | undefined): Condition {
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
  return { kind: 'text', text: print(expr) }
}

const isConstant = (expr: Expr) =>
  ['number', 'text', 'boolean', 'date', 'time', 'dateTime'].includes(expr.kind) ||
  (expr.kind === 'call' && expr.name === 'today')
const asName = (expr: Expr) => (expr.kind === 'name' ? expr.name : null)

function testOf(expr: Expr, kindOf: (question: string) => PointedKind | undefined): ConditionTest | null {
  const test =
    expr.kind === 'compare'
      ? comparedTest(expr, kindOf)
      : expr.kind === 'in'
        ? listedTest(expr, kindOf)
        : expr.kind === 'between'
          ? rangedTest(expr)
          : expr.kind === 'call'
            ? calledTest(expr)
            : expr.kind === 'and'
              ? (negatedTest(expr, kindOf) ?? includesTest(expr))
              : expr.kind === 'or'
                ? includesTest(expr)
                : null
  const kind = test && kindOf(test.question)
  return test && kind && OPERATORS[test.operator].kinds.includes(kind) ? test : null
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

function comparedTest(
  expr: ExprOf<'compare'>,
  kindOf: (question: string) => PointedKind | undefined,
): ConditionTest | null {
  const counted =
    expr.left.kind === 'call' && expr.left.name === 'count' && expr.left.args[0]
      ? asName(expr.left.args[0])
      : null
  if (counted && expr.right.kind === 'number' && (expr.op === '>=' || expr.op === '<='))
    return {
      kind: 'test',
      question: counted,
      operator: expr.op === '>=' ? 'countAtLeast' : 'countAtMost',
      operands: [expr.right],
    }
  const question = asName(expr.left)
  if (!question) return null
  if (expr.right.kind === 'null') {
    const operator = expr.op === '=' ? 'isBlank' : expr.op === '!=' ? 'isAnswered' : null
    return operator && { kind: 'test', question, operator, operands: [] }
  }
  if (!isConstant(expr.right)) return null
  const kind = kindOf(question)
  if (kind === 'boolean')
    return expr.op === '=' && expr.right.kind === 'boolean'
      ? { kind: 'test', question, operator: expr.right.value ? 'isYes' : 'isNo', operands: [] }
      : null
  if (kind === 'code')
    return expr.op === '=' ? { kind: 'test', question, operator: 'isAnyOf', operands: [expr.right] } : null
  const operator = (Object.keys(ORDERED) as Operator[]).find(o => ORDERED[o] === expr.op)
  return operator ? { kind: 'test', question, operator, operands: [expr.right] } : null
}

function listedTest(
  expr: ExprOf<'in'>,
  kindOf: (question: string) => PointedKind | undefined,
): ConditionTest | null {
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
  const operator = (Object.keys(TEXT_CALLS) as Operator[]).find(o => TEXT_CALLS[o] === expr.name)
  const [subject, match] = expr.args
  const question = subject && asName(subject)
  return operator && question && match?.kind === 'text'
    ? { kind: 'test', question, operator, operands: [match] }
    : null
}

/** `x != null and x != "a"` and `x != null and not(x in […])`: the builder's “is not”, which also asks for an answer. */
function negatedTest(
  expr: ExprOf<'and' | 'or'>,
  kindOf: (question: string) => PointedKind | undefined,
): ConditionTest | null {
  const [guard, rest] = expr.parts
  if (
    expr.parts.length !== 2 ||
    guard?.kind !== 'compare' ||
    guard.op !== '!=' ||
    guard.right.kind !== 'null' ||
    !rest
  )
    return null
  const question = asName(guard.left)
  if (!question) return null
  const isCode = kindOf(question) === 'code'
  if (
    rest.kind === 'compare' &&
    rest.op === '!=' &&
    asName(rest.left) === question &&
    isConstant(rest.right)
  ) {
    return { kind: 'test', question, operator: isCode ? 'isNoneOf' : 'differs', operands: [rest.right] }
  }
  const without =
    rest.kind === 'not'
      ? rest.value.kind === 'call'
        ? calledTest(rest.value)
        : rest.value.kind === 'or'
          ? includesTest(rest.value)
          : null
      : null
  if (without?.operator === 'includesAny' && without.question === question)
    return { ...without, operator: 'includesNone' }
  const listed = rest.kind === 'not' && rest.value.kind === 'in' ? listedTest(rest.value, kindOf) : null
  return listed?.question === question ? { ...listed, operator: 'isNoneOf' } : null
}
