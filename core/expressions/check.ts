import { FUNCTIONS, patternOf, type FeelFunction, type Parameter } from './functions'
import { nearest } from './near'
import type { Expr, ExprOf, Span, TestNode } from './tree'
import { durationFrom, PARTS } from './dates'
import {
  BOOLEAN,
  comparable,
  DATE,
  DATE_TIME,
  join,
  MONTHS,
  NULL,
  NUMBER,
  SECONDS,
  TEXT,
  TIME,
  typeName,
  UNKNOWN,
  type Choices,
  type Members,
  type ValueType,
} from './types'

export type ExpressionProblemCode =
  'unknown-name' | 'later-name' | 'wrong-type' | 'unknown-code' | 'label-for-code' | 'unknown-function'

/** An error in an expression: its place, a sentence for people, and the text that would be right where there is one. */
export interface ExpressionProblem extends Span {
  code: ExpressionProblemCode
  sentence: string
  instead: string | null
}

/** What the names in an expression stand for at the place where it is written. */
export interface Scope {
  /**
   * The type of a question; `later` when it comes after the place; `within` when it is asked in each entry of a repeating group that
   * the place is not in; undefined when the form has no such question.
   */
  lookup: (name: string) => { type: ValueType; later: boolean; within?: string } | undefined
  /** The names to suggest from. */
  names: () => Iterable<string>
}

/**
 * Types an expression against a form: every node gets a type before anything runs.
 * @param wanted the type that the place asks for, e.g. yes or no for a condition.
 */
export function check(
  expr: Expr,
  scope: Scope,
  wanted: ValueType | null = null,
): { type: ValueType; problems: ExpressionProblem[] } {
  const checker = new Checker(scope)
  const type = checker.typeOf(expr)
  if (wanted) checker.wanted(expr, type, wanted)
  return { type, problems: checker.problems }
}

class Checker {
  readonly problems: ExpressionProblem[] = []
  constructor(private readonly scope: Scope) {}

  /** Whether a whole expression gives what its place asks for; a code must be among the choices. */
  wanted(expr: Expr, type: ValueType, wanted: ValueType) {
    if (type.kind === 'null' || !comparable(type, wanted)) {
      this.report(
        'wrong-type',
        expr,
        `${wanted.kind === 'boolean' ? 'A condition' : sentenceStart(typeName(wanted))} is wanted here; this gives ${typeName(type)}.`,
      )
      return
    }
    const of = wanted.kind === 'list' ? wanted.of : wanted
    for (const part of wanted.kind === 'list' && expr.kind === 'list' ? expr.items : [expr])
      this.codes({ expr: part, type: of }, { expr: part, type })
  }

  report(
    code: ExpressionProblemCode,
    span: Span,
    sentence: string,
    instead: string | null = null,
  ): ValueType {
    this.problems.push({ code, sentence, instead, from: span.from, to: span.to })
    return UNKNOWN
  }

  typeOf(expr: Expr): ValueType {
    switch (expr.kind) {
      case 'number':
        return NUMBER
      case 'text':
        return TEXT
      case 'boolean':
        return BOOLEAN
      case 'null':
        return NULL
      case 'date':
        return DATE
      case 'time':
        return TIME
      case 'dateTime':
        return DATE_TIME
      case 'duration':
        return durationFrom(expr.value)?.unit === 'months' ? MONTHS : SECONDS
      case 'name':
        return this.name(expr)
      case 'list':
        return this.list(expr)
      case 'compare':
        return this.compare(expr)
      case 'between':
        return this.between(expr)
      case 'in':
        return this.membership(expr)
      case 'and':
      case 'or':
        for (const part of expr.parts)
          this.expect(part, BOOLEAN, `Both sides of “${expr.kind}” are conditions`)
        return BOOLEAN
      case 'not':
        this.expect(expr.value, BOOLEAN, '“not” takes a condition')
        return BOOLEAN
      case 'arithmetic':
        return this.arithmetic(expr)
      case 'negate': {
        const type = this.typeOf(expr.value)
        return type.kind === 'months' || type.kind === 'seconds'
          ? type
          : this.fits(expr.value, type, NUMBER, '“-” works on numbers')
      }
      case 'path':
        return this.path(expr)
      case 'filter':
        return this.filter(expr)
      case 'quantified':
        return this.quantified(expr)
      case 'if':
        return this.conditional(expr)
      case 'call':
        return this.call(expr)
    }
  }

  private name(expr: ExprOf<'name'>): ValueType {
    const bound = this.bound(expr.name)
    if (bound) return bound
    const found = this.scope.lookup(expr.name)
    if (!found) {
      const near = nearest(expr.name, this.scope.names())
      return this.report(
        'unknown-name',
        expr,
        `No question has the code “${expr.name}”.${near ? ` Did you mean “${near}”?` : ''}`,
        near,
      )
    }
    if (found.within)
      return this.report(
        'unknown-name',
        expr,
        `“${expr.name}” is asked once for every entry of “${found.within}”; from outside, write ${found.within}.${expr.name}.`,
        `${found.within}.${expr.name}`,
      )
    if (found.later)
      this.report(
        'later-name',
        expr,
        `“${expr.name}” is asked later than this; a rule may use only what comes before it, or stands in the same section.`,
      )
    return found.type
  }

  private list(expr: ExprOf<'list'>): ValueType {
    let of: ValueType = NULL
    for (const item of expr.items) {
      const joined = join(of, this.typeOf(item))
      if (!joined) return this.report('wrong-type', item, 'All items of a list are of one kind.')
      of = joined
    }
    return { kind: 'list', of }
  }

  private expect(expr: Expr, type: ValueType, rule: string) {
    this.fits(expr, this.typeOf(expr), type, rule)
  }

  private fits(expr: Expr, found: ValueType, wanted: ValueType, rule: string): ValueType {
    return found.kind !== 'null' && comparable(found, wanted)
      ? wanted
      : this.report('wrong-type', expr, `${rule}; this is ${typeName(found)}.`)
  }

  /** The names bound around the place, the innermost last: a variable, or the item of a filter with its members. */
  private readonly locals: { name: string | null; type: ValueType }[] = []

  private bound(name: string): ValueType | undefined {
    for (const local of this.locals.toReversed()) {
      if (local.name === name || (local.name === null && name === 'item')) return local.type
      const member =
        local.name === null && local.type.kind === 'context' ? local.type.members.get(name) : undefined
      if (member) return member
    }
    return undefined
  }

  private itemsOf(expr: Expr, what: string): ValueType {
    const type = this.typeOf(expr)
    if (type.kind === 'unknown') return type
    return type.kind === 'list'
      ? type.of
      : this.report('wrong-type', expr, `${what} a list; this is ${typeName(type)}.`)
  }

  private quantified(expr: ExprOf<'quantified'>): ValueType {
    this.locals.push({ name: expr.variable, type: this.itemsOf(expr.over, `“${expr.mode}” goes through`) })
    this.expect(expr.satisfies, BOOLEAN, 'A condition follows “satisfies”')
    this.locals.pop()
    return BOOLEAN
  }

  private filter(expr: ExprOf<'filter'>): ValueType {
    const of = this.itemsOf(expr.of, 'Square brackets pick from')
    this.locals.push({ name: null, type: of })
    const by = this.typeOf(expr.by)
    this.locals.pop()
    if (by.kind === 'number') return of
    this.fits(expr.by, by, BOOLEAN, 'In square brackets stands a condition or a number')
    return { kind: 'list', of }
  }

  private path(expr: ExprOf<'path'>): ValueType {
    const type = this.typeOf(expr.of)
    const { member } = expr
    if (type.kind === 'unknown') return type
    const inner = type.kind === 'list' && !type.members?.has(member) ? type.of : type
    const members = membersOf(inner)
    const found = members.get(member)
    if (found) return inner === type ? found : { kind: 'list', of: found }
    const near = nearest(member, members.keys())
    return this.report(
      'unknown-name',
      { from: expr.to - member.length, to: expr.to },
      members.size === 0
        ? `${sentenceStart(typeName(inner))} has no parts to name.`
        : `There is no “${member}” here.${near ? ` Did you mean “${near}”?` : ` There is: ${[...members.keys()].slice(0, 8).join(', ')}.`}`,
      near,
    )
  }

  private arithmetic(expr: ExprOf<'arithmetic'>): ValueType {
    const [left, right] = [this.typeOf(expr.left), this.typeOf(expr.right)]
    const both = TIMED[`${left.kind} ${expr.op} ${right.kind}`]
    if (both) return both
    const isOpen = (t: ValueType) => t.kind === 'unknown' || t.kind === 'number'
    if (!isOpen(left))
      return this.report('wrong-type', expr.left, `“${expr.op}” works on numbers; this is ${typeName(left)}.`)
    if (!isOpen(right))
      return this.report(
        'wrong-type',
        expr.right,
        `“${expr.op}” works on numbers; this is ${typeName(right)}.`,
      )
    return NUMBER
  }

  private compare(expr: ExprOf<'compare'>): ValueType {
    const left = this.typeOf(expr.left)
    const right = this.typeOf(expr.right)
    this.comparison(
      expr.op === '=' || expr.op === '!=',
      { expr: expr.left, type: left },
      { expr: expr.right, type: right },
      expr,
    )
    return BOOLEAN
  }

  /** Whether two sides can be compared: alike, ordered where order is asked, codes among the choices. */
  private comparison(isEquality: boolean, left: Side, right: Side, span: Span) {
    if (!comparable(left.type, right.type)) {
      this.report(
        'wrong-type',
        span,
        `${sentenceStart(typeName(left.type))} is compared with ${typeName(right.type)}.`,
      )
      return
    }
    if (!isEquality) {
      const unordered = [left, right].find(s => !ORDERED.has(s.type.kind))
      if (unordered)
        this.report(
          'wrong-type',
          span,
          `${sentenceStart(typeName(unordered.type))} has no order; only numbers, dates and times can be less or greater.`,
        )
      return
    }
    this.codes(left, right)
    this.codes(right, left)
    if (left.type.kind === 'code' && right.type.kind === 'code')
      this.sharedCode(left.type.choices, right.type.choices, span)
  }

  private codes(choice: Side, other: Side) {
    if (choice.type.kind !== 'code' || other.expr.kind !== 'text') return
    this.codeAmong(choice.type.choices, other.expr)
  }

  private codeAmong(choices: Choices, expr: ExprOf<'text'>) {
    const code = expr.value
    if (choices.has(code)) return
    const wanted = code.trim().toLowerCase()
    for (const [own, label] of choices) {
      if (label.trim().toLowerCase() === wanted && own.toLowerCase() !== wanted) {
        this.report(
          'label-for-code',
          expr,
          `“${code}” is a label; its code is “${own}”.`,
          JSON.stringify(own),
        )
        return
      }
    }
    const near = nearest(code, choices.keys())
    this.report(
      'unknown-code',
      expr,
      `“${code}” is not among the choices.${near ? ` Did you mean “${near}”?` : ''}`,
      near && JSON.stringify(near),
    )
  }

  private sharedCode(a: Choices, b: Choices, span: Span) {
    if (a !== b && ![...a.keys()].some(code => b.has(code)))
      this.report('unknown-code', span, 'The two questions have no code in common.')
  }

  private between(expr: ExprOf<'between'>): ValueType {
    const value = { expr: expr.value, type: this.typeOf(expr.value) }
    for (const end of [expr.low, expr.high])
      this.comparison(false, value, { expr: end, type: this.typeOf(end) }, end)
    return BOOLEAN
  }

  private membership(expr: ExprOf<'in'>): ValueType {
    const value = { expr: expr.value, type: this.typeOf(expr.value) }
    if (expr.tests.length === 0)
      this.report('wrong-type', expr, 'The list after “in” is empty, so this is never true.')
    for (const test of expr.tests) this.membershipTest(value, test, expr.bare)
    return BOOLEAN
  }

  private membershipTest(value: Side, test: TestNode, bare: boolean) {
    if (test.kind === 'range') {
      for (const end of [test.low, test.high])
        this.comparison(false, value, { expr: end, type: this.typeOf(end) }, end)
      return
    }
    if (test.kind === 'unaryTest') {
      this.comparison(
        test.op === '=' || test.op === '!=',
        value,
        { expr: test.value, type: this.typeOf(test.value) },
        test,
      )
      return
    }
    const type = this.typeOf(test)
    this.comparison(true, value, { expr: test, type: bare && type.kind === 'list' ? type.of : type }, test)
  }

  private conditional(expr: ExprOf<'if'>): ValueType {
    this.expect(expr.test, BOOLEAN, '“if” takes a condition')
    const joined = join(this.typeOf(expr.then), this.typeOf(expr.else))
    return joined ?? this.report('wrong-type', expr.else, '“then” and “else” give values of one kind.')
  }

  private call(expr: ExprOf<'call'>): ValueType {
    const args = expr.args.map(arg => this.typeOf(arg))
    const called = FUNCTIONS.get(expr.name)
    if (!called) {
      const near = nearest(expr.name, FUNCTIONS.keys())
      return this.report(
        'unknown-function',
        expr,
        `There is no function “${expr.name}”.${near ? ` Did you mean “${near}”?` : ''}`,
        near,
      )
    }
    this.argumentsOf(expr, called, args)
    return called.result(args)
  }

  private argumentsOf(expr: ExprOf<'call'>, called: FeelFunction, types: readonly ValueType[]) {
    const [first] = called.parameters
    const many = first?.items === true
    const [least, most] = many
      ? [1, Infinity]
      : [called.parameters.filter(p => !p.optional).length, called.parameters.length]
    if (types.length < least || types.length > most) {
      this.report(
        'wrong-type',
        expr,
        `“${expr.name}” takes ${many ? 'at least one value' : `${least} value${least === 1 ? '' : 's'}`}: ${expr.name}(${called.parameters.map(p => p.name).join(', ')}).`,
      )
      return
    }
    types.forEach((type, i) => {
      const parameter = many ? first : called.parameters[i]
      const item = many && types.length === 1 && type.kind === 'list' ? type.of : type
      if (parameter && !takes(parameter, item))
        this.report(
          'wrong-type',
          expr.args[i] ?? expr,
          `“${expr.name}” takes ${WANTED[parameter.takes]} here; this is ${typeName(type)}.`,
        )
    })
    const [list, element] = types
    const other = first?.takes === 'ordered' && list ? types.findIndex(type => !comparable(list, type)) : -1
    if (list && other > 0)
      this.report(
        'wrong-type',
        expr.args[other] ?? expr,
        `“${expr.name}” takes values of one kind; ${typeName(list)} and ${typeName(types[other] ?? UNKNOWN)} are two.`,
      )
    const literal = expr.args[1]
    if (expr.name === 'matches' && literal?.kind === 'text' && !patternOf(literal.value))
      this.report('wrong-type', literal, 'This is not a pattern that can be read.')
    if (expr.name === 'list contains' && list?.kind === 'list' && element && literal) {
      this.comparison(true, { expr, type: list.of }, { expr: literal, type: element }, literal)
    }
  }
}

interface Side {
  expr: Expr
  type: ValueType
}

const ORDERED: ReadonlySet<ValueType['kind']> = new Set([
  'number',
  'date',
  'time',
  'dateTime',
  'months',
  'seconds',
  'unknown',
])

/** What arithmetic gives beyond numbers: texts joined, dates moved, lengths of time added and stretched. */
const TIMED: Record<string, ValueType> = {
  'text + text': TEXT,
  'date - date': SECONDS,
  'dateTime - dateTime': SECONDS,
  'time - time': SECONDS,
  'dateTime - date': SECONDS,
  'date - dateTime': SECONDS,
  ...Object.fromEntries(
    ['date', 'dateTime'].flatMap(k =>
      ['+', '-'].flatMap(op =>
        ['months', 'seconds'].map(d => [`${k} ${op} ${d}`, k === 'date' ? DATE : DATE_TIME]),
      ),
    ),
  ),
  'time + seconds': TIME,
  'time - seconds': TIME,
  ...Object.fromEntries(
    ([MONTHS, SECONDS] as const).flatMap(d => [
      [`${d.kind} + ${d.kind}`, d],
      [`${d.kind} - ${d.kind}`, d],
      [`${d.kind} * number`, d],
      [`number * ${d.kind}`, d],
      [`${d.kind} / number`, d],
      [`${d.kind} / ${d.kind}`, NUMBER],
      [`${d.kind} + date`, DATE],
    ]),
  ),
}

const NO_MEMBERS: Members = new Map()
const numbers = (names: readonly string[]): Members => new Map(names.map(n => [n, NUMBER]))
const TIME_MEMBERS: Partial<Record<ValueType['kind'], Members>> = {
  date: numbers(PARTS.date),
  time: numbers(PARTS.time),
  dateTime: numbers(PARTS.dateTime),
  months: numbers(PARTS.months),
  seconds: numbers(PARTS.seconds),
}
const membersOf = (type: ValueType): Members =>
  ('members' in type ? type.members : TIME_MEMBERS[type.kind]) ?? NO_MEMBERS

const WANTED: Record<Parameter['takes'], string> = {
  boolean: 'yes or no',
  number: 'a number',
  text: 'a text',
  date: 'a date',
  list: 'a list',
  ordered: 'numbers, dates, times or texts',
  value: 'a value',
}

function takes(parameter: Parameter, type: ValueType): boolean {
  if (type.kind === 'unknown') return true
  if (type.kind === 'null') return parameter.takes === 'value'
  if (parameter.takes === 'value') return true
  if (parameter.takes === 'ordered') return ORDERED.has(type.kind) || type.kind === 'text'
  if (parameter.takes === 'date') return type.kind === 'date' || type.kind === 'dateTime'
  return comparable(
    type,
    { number: NUMBER, text: TEXT, boolean: BOOLEAN, list: { kind: 'list', of: UNKNOWN } as const }[
      parameter.takes
    ],
  )
}

const sentenceStart = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
