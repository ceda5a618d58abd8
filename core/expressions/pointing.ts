import { parse } from './parse'
import { replaceParts } from './replace'
import type { CompareOp, Expr } from './tree'

/**
 * Conditions as people build them by pointing: groups of tests on one question each. What can't be pointed at stays in the
 * tree as text, so that every condition can be shown, and none is lost, either way.
 */
export type Condition = ConditionGroup | ConditionTest | EntriesCondition | { kind: 'text'; text: string }
export interface ConditionGroup {
  kind: 'group'
  mode: 'all' | 'any' | 'none'
  parts: Condition[]
}
/** A condition on every entry of a repeating group, or on some entry: its tests name the questions of an entry. */
export interface EntriesCondition {
  kind: 'entries'
  mode: 'every' | 'some'
  group: string
  /** What an entry is called in the expression. */
  variable: string
  satisfies: Condition
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

/** The test with which a new part begins: of no question yet, or by the first operator that fits one. */
export function firstTest(question?: { code: string; kind: PointedKind }): ConditionTest {
  const fitting = (Object.keys(OPERATORS) as Operator[]).find(
    key => question && OPERATORS[key].kinds.includes(question.kind),
  )
  return { kind: 'test', question: question?.code ?? '', operator: fitting ?? 'isAnswered', operands: [] }
}

const HERE = { from: 0, to: 0 }
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
  if (condition.kind === 'entries') return entriesExpression(condition)
  const parts = condition.parts.map(expressionOf)
  const whole = parts.filter(p => p !== null)
  const [only] = whole
  if (!only || whole.length < parts.length) return null
  const inner: Expr =
    whole.length === 1 ? only : { kind: condition.mode === 'all' ? 'and' : 'or', parts: whole, ...HERE }
  return condition.mode === 'none' ? { kind: 'not', value: inner, ...HERE } : inner
}

/** Of an entry, its questions are asked through what it is called. */
function entriesExpression({ mode, group, variable, satisfies }: EntriesCondition): Expr | null {
  const inner = expressionOf(satisfies)
  if (!inner) return null
  const through = replaceParts(inner, n =>
    n.kind === 'name' ? { kind: 'path', of: nameNode(variable), member: n.name, ...HERE } : null,
  )
  return { kind: 'quantified', mode, variable, over: nameNode(group), satisfies: through, ...HERE }
}

/** How a test by one operator is written; null while its values are missing. */
type WriteTest = (question: string, operands: Expr[]) => Expr | null

/** An operator that compares the answer with its one value. */
const compared =
  (op: CompareOp): WriteTest =>
  (question, [value]) =>
    value ? compareNode(question, op, value) : null

/** An operator that is a function of the answer and its one value. */
const called =
  (name: string): WriteTest =>
  (question, [value]) =>
    value ? { kind: 'call', name, args: [nameNode(question), value], ...HERE } : null

/** An operator that compares how many are chosen. */
const counted =
  (op: CompareOp): WriteTest =>
  (question, [value]) => {
    const count: Expr = { kind: 'call', name: 'count', args: [nameNode(question)], ...HERE }
    return value ? { kind: 'compare', op, left: count, right: value, ...HERE } : null
  }

const isBoolean =
  (value: boolean): WriteTest =>
  question =>
    compareNode(question, '=', { kind: 'boolean', value, ...HERE })

/** “Is not” also asks that there is an answer. */
const butAnswered = (question: string, rest: Expr): Expr => ({
  kind: 'and',
  parts: [answered(question), rest],
  ...HERE,
})

const WRITE_TEST: Readonly<Record<Operator, WriteTest>> = {
  isAnswered: question => answered(question),
  isBlank: question => compareNode(question, '=', { kind: 'null', ...HERE }),
  isYes: isBoolean(true),
  isNo: isBoolean(false),
  isAnyOf: (question, codes) => anyOf(question, codes),
  isNoneOf: (question, codes) => butAnswered(question, noneOf(question, codes)),
  includesAny: (question, codes) => includesAny(question, codes),
  includesAll: (question, codes) =>
    joined(
      'and',
      codes.map(code => includes(question, code)),
    ),
  includesNone: (question, codes) =>
    butAnswered(question, { kind: 'not', value: includesAny(question, codes), ...HERE }),
  countAtLeast: counted('>='),
  countAtMost: counted('<='),
  equals: compared('='),
  differs: (question, [value]) => (value ? butAnswered(question, compareNode(question, '!=', value)) : null),
  atLeast: compared('>='),
  moreThan: compared('>'),
  atMost: compared('<='),
  lessThan: compared('<'),
  between: (question, [low, high]) =>
    low && high ? { kind: 'between', value: nameNode(question), low, high, ...HERE } : null,
  contains: called('contains'),
  startsWith: called('starts with'),
  endsWith: called('ends with'),
}

function testExpression({ question, operator, operands }: ConditionTest): Expr | null {
  const wanted = OPERATORS[operator].operands
  const isFinished = wanted === 'many' ? operands.length > 0 : operands.length === wanted
  return question && isFinished ? WRITE_TEST[operator](question, operands) : null
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

const includesAny = (question: string, codes: Expr[]): Expr =>
  joined(
    'or',
    codes.map(code => includes(question, code)),
  )

const noneOf = (question: string, codes: Expr[]): Expr => {
  const [only] = codes
  return codes.length === 1 && only
    ? compareNode(question, '!=', only)
    : { kind: 'not', value: anyOf(question, codes), ...HERE }
}

const anyOf = (question: string, operands: Expr[]): Expr => {
  const [only] = operands
  return operands.length === 1 && only
    ? compareNode(question, '=', only)
    : { kind: 'in', value: nameNode(question), tests: operands, bare: false, ...HERE }
}
