import { add, compareNumbers, decimalPlaces, divide, floor, isNumber, multiply, numberFromDouble, numberFromText, subtract, type Num } from '../expressions/decimal'
import { dayNumber, FIRST_DAY, isoFromDay, LAST_DAY } from '../expressions/dates'
import { nodesOf, type Expr, type TestNode } from '../expressions/tree'
import type { Value } from '../expressions/types'
import { readAnswer, answerOf } from '../fill/answers'
import type { Plan } from '../fill/plan'
import type { QuestionOf, QuestionType } from '../form/definition'
import { rowsOf } from '../form/walk'

/**
 * The quotient of a question's possible answers: classes that no condition of the form tells apart, each with an answer that
 * stands for it. Blank is not among them. Finite classes are exact: every possible answer lies in exactly one.
 */
export interface Domain {
  classes: readonly Value[]
  /** Each class is a single answer, so that any test of this question alone can be tabulated. */
  singletons: boolean
}

/** What conditions compare each question with. */
export interface Asked {
  constants: Map<string, Value[]>
  /** Texts that text functions look for in a question's answer. */
  pieces: Map<string, string[]>
  /** Choice questions compared with another question: every one of their codes counts. */
  whole: Set<string>
}

const literal = (e: Expr): Value | undefined => ['number', 'text', 'date'].includes(e.kind) && 'value' in e && !isExpr(e.value) ? e.value : undefined
const isExpr = (v: unknown): v is Expr => typeof v === 'object' && v !== null && 'kind' in v

/** Collects the constants that conditions compare questions with, by question. */
export function askedIn(expressions: Iterable<Expr>): Asked {
  const asked: Asked = { constants: new Map(), pieces: new Map(), whole: new Set() }
  const note = (subject: Expr, other: Expr) => {
    const value = literal(other)
    if (subject.kind !== 'name') return
    if (value !== undefined) push(asked.constants, subject.name, value)
    else if (other.kind !== 'null') asked.whole.add(subject.name)
  }
  for (const expr of expressions) for (const node of nodesOf(expr)) noteNode(node, note, asked)
  return asked
}

function noteNode(node: Expr, note: (subject: Expr, other: Expr) => void, asked: Asked) {
  if (node.kind === 'compare') {
    note(node.left, node.right)
    note(node.right, node.left)
  }
  if (node.kind === 'between') for (const end of [node.low, node.high]) note(node.value, end)
  if (node.kind === 'in') for (const test of node.tests) for (const other of testValues(test)) note(node.value, other)
  if (node.kind !== 'call') return
  const names = node.args.filter(a => a.kind === 'name')
  for (const arg of node.args) if (arg.kind === 'text') for (const name of names) push(asked.pieces, name.name, arg.value)
}

const testValues = (test: TestNode): Expr[] => test.kind === 'range' ? [test.low, test.high] : test.kind === 'unaryTest' ? [test.value] : [test]

function push<T>(map: Map<string, T[]>, key: string, value: T) {
  const list = map.get(key)
  if (!list) map.set(key, [value])
  else if (!list.includes(value)) list.push(value)
}

type DomainOf<T extends QuestionType> = (q: QuestionOf<T>, plan: Plan, asked: readonly Value[], whole: boolean) => Domain

const DOMAINS: { readonly [T in QuestionType]: DomainOf<T> } = {
  yesNo: () => ({ classes: [true, false], singletons: true }),
  choice: (q, plan, asked, whole) => {
    const codes = [...new Set((rowsOf(plan.form, q) ?? []).map(r => r.code))]
    const mentioned = codes.filter(code => whole || asked.includes(code))
    const other = codes.find(code => !mentioned.includes(code))
    const classes = other === undefined ? mentioned : [other, ...mentioned]
    return { classes, singletons: classes.length === codes.length }
  },
  text: (q, plan, asked) => {
    const named = asked.filter(v => typeof v === 'string')
    return { classes: [otherText(named, q.minLength ?? 1, q.maxLength), ...named].filter(v => isPossible(v, q, plan)), singletons: false }
  },
  integer: (q, plan, asked) => ({ classes: numberClasses(asked, q.min, q.max, 0).filter(v => isPossible(v, q, plan)), singletons: false }),
  decimal: (q, plan, asked) => ({ classes: numberClasses(asked, q.min, q.max, q.decimals ?? null).filter(v => isPossible(v, q, plan)), singletons: false }),
  date: (q, plan, asked) => {
    const days = asked.map(v => typeof v === 'string' ? dayNumber(v) : null).filter(d => d !== null)
    const min = q.min === undefined ? FIRST_DAY : dayNumber(q.min) ?? FIRST_DAY
    const max = q.max === undefined ? LAST_DAY : dayNumber(q.max) ?? LAST_DAY
    const classes = numberClasses(days, min, max, 0, COMMON_DAY).map(n => typeof n === 'number' && n >= FIRST_DAY && n <= LAST_DAY ? isoFromDay(n) : null)
    return { classes: classes.filter(v => v !== null && isPossible(v, q, plan)), singletons: false }
  },
}

/** Where an open interval leaves the choice, witnesses take a day of this time rather than one of the year 1. */
const COMMON_DAY = 20_000

function isPossible<T extends QuestionType>(value: Value, question: QuestionOf<T>, plan: Plan): boolean {
  const reading = readAnswer(answerOf(value), question, plan.form)
  return reading.wrong === null && reading.value !== null
}

/** The domain of a question. */
export function domainOf<T extends QuestionType>(question: QuestionOf<T>, plan: Plan, asked: Asked): Domain {
  return DOMAINS[question.type](question, plan, asked.constants.get(question.code) ?? [], asked.whole.has(question.code))
}

/** A text that is none of those named, within the lengths where there is one. */
function otherText(named: readonly string[], least: number, most: number | undefined): string | null {
  const longest = Math.max(least, Math.min(most ?? 40, 40))
  const base = 'Something'.slice(0, longest).padEnd(least, 'x')
  const letters = 'abcdefghijklmnopqrstuvwxyz'
  const candidates = [base, ...[...letters].map(l => base.slice(0, -1) + l), ...[...letters].flatMap(l => [...letters].map(m => (base.slice(0, -2) + l + m).slice(0, longest)))]
  return candidates.find(c => !named.includes(c)) ?? null
}

/**
 * One number for every stretch that the constants and limits cut the line into: the constants themselves, and the gaps.
 * @param places digits after the point that answers may have; null: any
 */
export function numberClasses(asked: readonly Value[], min: number | undefined, max: number | undefined, places: number | null, common = 0): Num[] {
  const cuts = asked.filter(isNumber)
  for (const limit of [min, max]) {
    const n = limit === undefined ? null : numberFromDouble(limit)
    if (n !== null) cuts.push(n)
  }
  const sorted = cuts.sort(compareNumbers).filter((n, i, all) => i === 0 || compareNumbers(n, all[i - 1] ?? n) !== 0)
  const [first] = sorted
  const last = sorted[sorted.length - 1]
  if (first === undefined || last === undefined) return [common]
  const values: (Num | null)[] = []
  values.push(inGap(null, first, places, common))
  sorted.forEach((cut, i) => {
    if (places === null || decimalPlaces(cut) <= places) values.push(cut)
    values.push(inGap(cut, sorted[i + 1] ?? null, places, common))
  })
  return values.filter(v => v !== null).filter(v => (min === undefined || compareNumbers(v, min) >= 0) && (max === undefined || compareNumbers(v, max) <= 0))
}

/** A number strictly between two, with at most so many places; null when there is none. */
function inGap(low: Num | null, high: Num | null, places: number | null, common: number): Num | null {
  const isInside = (n: Num | null): n is Num => n !== null && (low === null || compareNumbers(n, low) > 0) && (high === null || compareNumbers(n, high) < 0)
  if (isInside(common)) return common
  const start = low === null ? floor(subtract(high ?? 0, 1) ?? 0) : floor(add(low, 1) ?? 0)
  if (isInside(start)) return start
  if (low === null || high === null) return null
  const most = places ?? 2 + Math.max(decimalPlaces(low), decimalPlaces(high))
  for (let p = 1; p <= most; p++) {
    const scale = numberFromText(`1${'0'.repeat(p)}`) ?? 1
    const steps = floor(multiply(low, scale) ?? 0)
    const next = steps === null ? null : divide(add(steps, 1) ?? 0, scale)
    if (isInside(next)) return next
  }
  return null
}
