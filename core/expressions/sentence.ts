import { numberText } from './decimal'
import { durationFrom, readableDate, readableDateTime, readableDuration, readableTime } from './dates'
import { handleByKind, type ByKind, type CompareOp, type Expr, type ExprOf, type TestNode } from './tree'

/** A stretch of a sentence; `name` and `value` are what the reader looks for, `word` is what stands between. */
export interface Segment {
  role: 'word' | 'name' | 'value'
  text: string
  code?: string
}

/** How questions and their choices are called for people. */
export interface Wording {
  question: (code: string) => string | undefined
  choice: (question: string, code: string) => string | undefined
}

/** A rule as a sentence: “Hull material is Wood or Steel”. Every expression has one; nothing is left out. */
export function sentenceOf(expr: Expr, names: Wording): Segment[] {
  return joined(new Teller(names).tell(expr, false))
}

export const sentenceText = (segments: readonly Segment[]): string => segments.map(s => s.text).join('')

const word = (text: string): Segment => ({ role: 'word', text })
const value = (text: string): Segment => ({ role: 'value', text })

const COMPARED: Record<CompareOp, string> = {
  '=': ' is ',
  '!=': ' is not ',
  '<': ' is less than ',
  '<=': ' is at most ',
  '>': ' is more than ',
  '>=': ' is at least ',
}
const DATED: Partial<Record<CompareOp, string>> = {
  '<': ' is before ',
  '<=': ' is not after ',
  '>': ' is after ',
  '>=': ' is not before ',
}
const TESTED: Record<string, string> = {
  contains: ' contains ',
  'starts with': ' starts with ',
  'ends with': ' ends with ',
  'list contains': ' includes ',
}
const SIGNS = { '+': ' + ', '-': ' − ', '*': ' × ', '/': ' ÷ ', '**': ' to the power of ' } as const

/** Neighbouring words become one segment. */
function joined(segments: readonly Segment[]): Segment[] {
  const result: Segment[] = []
  for (const segment of segments) {
    const last = result[result.length - 1]
    if (last && last.role === 'word' && segment.role === 'word')
      result[result.length - 1] = word(last.text + segment.text)
    else result.push(segment)
  }
  return result
}

const between = (parts: readonly Segment[][], glue: string, last = glue): Segment[] =>
  parts.flatMap((part, i) => (i === 0 ? part : [word(i === parts.length - 1 ? last : glue), ...part]))

/** The dates between which a length of time is asked for. */
function endsOf({ of, member }: ExprOf<'path'>): readonly Expr[] {
  if (of.kind === 'call' && of.name === 'years and months duration') return of.args
  return of.kind === 'arithmetic' && of.op === '-' && member === 'days' ? [of.right, of.left] : []
}

class Teller {
  constructor(private readonly names: Wording) {}

  tell(expr: Expr, nested: boolean): Segment[] {
    return handleByKind(this.byKind, expr, nested)
  }

  private readonly byKind: ByKind<Segment[], [nested: boolean]> = {
    number: e => [value(numberText(e.value))],
    text: e => [value(`“${e.value}”`)],
    boolean: e => [value(e.value ? 'Yes' : 'No')],
    null: () => [value('blank')],
    date: e => [value(readableDate(e.value))],
    time: e => [value(readableTime(e.value))],
    dateTime: e => [value(readableDateTime(e.value))],
    duration: e => [value(readableDuration(durationFrom(e.value) ?? { unit: 'seconds', amount: 0 }))],
    name: e =>
      e.name === 'row'
        ? [word('the row')]
        : [{ role: 'name', text: this.names.question(e.name) ?? e.name, code: e.name }],
    list: e =>
      between(
        e.items.map(item => this.tell(item, true)),
        ', ',
      ),
    compare: e => this.compare(e),
    between: e => [
      ...this.tell(e.value, true),
      word(' is between '),
      ...this.tell(e.low, true),
      word(' and '),
      ...this.tell(e.high, true),
    ],
    in: e => this.membership(e),
    and: (e, nested) => this.junction(e, nested),
    or: (e, nested) => this.junction(e, nested),
    not: e => this.negation(e),
    arithmetic: (e, nested) =>
      this.brackets([...this.tell(e.left, true), word(SIGNS[e.op]), ...this.tell(e.right, true)], nested),
    negate: e => [word('−'), ...this.tell(e.value, true)],
    if: (e, nested) => this.brackets(this.conditional(e), nested),
    call: e => this.call(e),
    path: e => this.path(e),
    filter: e =>
      e.by.kind === 'number'
        ? [...this.tell(e.of, true), word(` no. ${numberText(e.by.value)}`)]
        : [...this.tell(e.of, true), word(' where '), ...this.tell(e.by, true)],
    quantified: (e, nested) => this.brackets(this.quantified(e), nested),
  }

  private conditional = (expr: ExprOf<'if'>): Segment[] => [
    word('if '),
    ...this.tell(expr.test, false),
    word(' then '),
    ...this.tell(expr.then, true),
    word(', otherwise '),
    ...this.tell(expr.else, true),
  ]

  private quantified = (expr: ExprOf<'quantified'>): Segment[] => [
    word(expr.mode === 'some' ? 'for some of ' : 'for all of '),
    ...this.tell(expr.over, true),
    word(': '),
    ...this.tell(expr.satisfies, false),
  ]

  /** The row of a chosen code is not named: “Harbour’s depth”. */
  private path(expr: ExprOf<'path'>): Segment[] {
    const age = this.age(expr)
    if (age) return age
    if (expr.member === 'row') return this.tell(expr.of, true)
    return [...this.tell(expr.of, true), word('’s '), value(this.memberName(expr))]
  }

  /** An age, or how long something lasts: “full years from Date of birth to today”, “days from First day to Last day”. */
  private age(expr: ExprOf<'path'>): Segment[] | null {
    const { member } = expr
    const [from, to] = endsOf(expr)
    if (!from || !to || (member !== 'years' && member !== 'days')) return null
    return [
      word(member === 'years' ? 'full years from ' : 'days from '),
      ...this.tell(from, true),
      word(' to '),
      ...this.tell(to, true),
    ]
  }

  /** A member that is a question is called by its label. */
  private memberName({ of, member }: ExprOf<'path'>): string {
    const isColumn = (of.kind === 'name' && of.name === 'row') || (of.kind === 'path' && of.member === 'row')
    return (isColumn ? undefined : this.names.question(member)) ?? member.replaceAll('_', ' ')
  }

  private brackets = (segments: Segment[], wanted: boolean) =>
    wanted ? [word('('), ...segments, word(')')] : segments

  /** A value beside a question: a code is told by its label. */
  private beside(expr: Expr, other: Expr): Segment[] {
    if (expr.kind !== 'text') return this.tell(expr, true)
    const label = other.kind === 'name' ? this.names.choice(other.name, expr.value) : undefined
    return [value(label ?? `“${expr.value}”`)]
  }

  private compare(expr: ExprOf<'compare'>): Segment[] {
    const left = this.beside(expr.left, expr.right)
    if (expr.right.kind === 'null') return [...left, word(expr.op === '=' ? ' is blank' : ' is answered')]
    const isDate = expr.right.kind === 'date' || (expr.right.kind === 'call' && expr.right.name === 'today')
    const verb = (isDate ? DATED[expr.op] : undefined) ?? COMPARED[expr.op]
    return [...left, word(verb), ...this.beside(expr.right, expr.left)]
  }

  private membership(expr: ExprOf<'in'>): Segment[] {
    const subject = this.tell(expr.value, true)
    const tests = expr.tests.map(test => this.test(test, expr.value))
    return [...subject, word(' is '), ...between(tests, ', ', ' or ')]
  }

  private test(test: TestNode, subject: Expr): Segment[] {
    if (test.kind === 'unaryTest')
      return [word(COMPARED[test.op].replace(' is ', '').trimStart()), ...this.beside(test.value, subject)]
    if (test.kind !== 'range') return this.beside(test, subject)
    return [
      word(test.lowOpen ? 'above ' : 'from '),
      ...this.tell(test.low, true),
      word(test.highOpen ? ' to below ' : ' to '),
      ...this.tell(test.high, true),
    ]
  }

  /** “x is answered and is not A” is how the builder says “is not”; it reads so, too. */
  private junction(expr: ExprOf<'and' | 'or'>, nested: boolean): Segment[] {
    return this.brackets(
      between(
        expr.parts.map(part => this.tell(part, true)),
        ` ${expr.kind} `,
      ),
      nested,
    )
  }

  private negation(expr: ExprOf<'not'>): Segment[] {
    if (expr.value.kind === 'or')
      return [
        word('none of ('),
        ...between(
          expr.value.parts.map(part => this.tell(part, true)),
          ', ',
        ),
        word(')'),
      ]
    return [word('not ('), ...this.tell(expr.value, false), word(')')]
  }

  private call(expr: ExprOf<'call'>): Segment[] {
    const [first, second] = expr.args
    const verb = TESTED[expr.name]
    if (verb && first && second) return [...this.tell(first, true), word(verb), ...this.beside(second, first)]
    if (expr.name === 'today') return [value('today')]
    return [
      word(`${expr.name} of `),
      ...between(
        expr.args.map(arg => this.tell(arg, true)),
        ', ',
        ' and ',
      ),
    ]
  }
}
