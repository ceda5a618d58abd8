import { numberText } from './decimal'
import { durationFrom, readableDate, readableDateTime, readableDuration, readableTime } from './dates'
import type { CompareOp, Expr, ExprOf, TestNode } from './tree'

/** A stretch of a sentence; `name` and `value` are what the reader looks for, `word` is what stands between. */
export interface Segment {
  role: 'word' | 'name' | 'value'
  text: string
  code?: string
}

/** How questions and their choices are called for people. */
export interface Names {
  question: (code: string) => string | undefined
  choice: (question: string, code: string) => string | undefined
}

/** A rule as a sentence: “Hull material is Wood or Steel”. Every expression has one; nothing is left out. */
export function sentence(expr: Expr, names: Names): Segment[] {
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

class Teller {
  constructor(private readonly names: Names) {}

  tell(expr: Expr, nested: boolean): Segment[] {
    switch (expr.kind) {
      case 'number':
        return [value(numberText(expr.value))]
      case 'text':
        return [value(`“${expr.value}”`)]
      case 'boolean':
        return [value(expr.value ? 'Yes' : 'No')]
      case 'null':
        return [value('blank')]
      case 'date':
        return [value(readableDate(expr.value))]
      case 'time':
        return [value(readableTime(expr.value))]
      case 'dateTime':
        return [value(readableDateTime(expr.value))]
      case 'duration':
        return [value(readableDuration(durationFrom(expr.value) ?? { unit: 'seconds', amount: 0 }))]
      case 'name':
        return expr.name === 'row'
          ? [word('the row')]
          : [{ role: 'name', text: this.names.question(expr.name) ?? expr.name, code: expr.name }]
      case 'list':
        return between(
          expr.items.map(item => this.tell(item, true)),
          ', ',
        )
      case 'compare':
        return this.compare(expr)
      case 'between':
        return [
          ...this.tell(expr.value, true),
          word(' is between '),
          ...this.tell(expr.low, true),
          word(' and '),
          ...this.tell(expr.high, true),
        ]
      case 'in':
        return this.membership(expr)
      case 'and':
      case 'or':
        return this.junction(expr, nested)
      case 'not':
        return this.negation(expr)
      case 'arithmetic':
        return this.brackets(
          [...this.tell(expr.left, true), word(SIGNS[expr.op]), ...this.tell(expr.right, true)],
          nested,
        )
      case 'negate':
        return [word('−'), ...this.tell(expr.value, true)]
      case 'if':
        return this.brackets(
          [
            word('if '),
            ...this.tell(expr.test, false),
            word(' then '),
            ...this.tell(expr.then, true),
            word(', otherwise '),
            ...this.tell(expr.else, true),
          ],
          nested,
        )
      case 'call':
        return this.call(expr)
      // The row of a chosen code is not named: “Harbour’s depth”.
      case 'path':
        return (
          this.age(expr) ??
          (expr.member === 'row'
            ? this.tell(expr.of, true)
            : [...this.tell(expr.of, true), word('’s '), value(this.memberName(expr))])
        )
      case 'filter':
        return expr.by.kind === 'number'
          ? [...this.tell(expr.of, true), word(` no. ${numberText(expr.by.value)}`)]
          : [...this.tell(expr.of, true), word(' where '), ...this.tell(expr.by, true)]
      case 'quantified':
        return this.brackets(
          [
            word(expr.mode === 'some' ? 'for some of ' : 'for all of '),
            ...this.tell(expr.over, true),
            word(': '),
            ...this.tell(expr.satisfies, false),
          ],
          nested,
        )
    }
  }

  /** An age, or how long something lasts: “full years from Date of birth to today”, “days from First day to Last day”. */
  private age({ of, member }: ExprOf<'path'>): Segment[] | null {
    const ends =
      of.kind === 'call' && of.name === 'years and months duration'
        ? of.args
        : of.kind === 'arithmetic' && of.op === '-' && member === 'days'
          ? [of.right, of.left]
          : []
    const [from, to] = ends
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
