import { FUNCTIONS, type FeelFunction, type Parameter } from './functions'
import { nearest } from './near'
import type { Expr, ExprOf, Span, TestNode } from './tree'
import { BOOLEAN, comparable, DATE, join, NULL, NUMBER, TEXT, typeName, UNKNOWN, type Choices, type ValueType } from './types'

export type ExpressionProblemCode = 'unknown-name' | 'later-name' | 'wrong-type' | 'unknown-code' | 'label-for-code' | 'unknown-function'

/** An error in an expression: its place, a sentence for people, and the text that would be right where there is one. */
export interface ExpressionProblem extends Span {
  code: ExpressionProblemCode
  sentence: string
  instead: string | null
}

/** What the names in an expression stand for at the place where it is written. */
export interface Scope {
  /** The type of a question; `later` when it comes after the place; undefined when the form has no such question. */
  lookup: (name: string) => { type: ValueType, later: boolean } | undefined
  /** The names to suggest from. */
  names: () => Iterable<string>
}

/**
 * Types an expression against a form: every node gets a type before anything runs.
 * @param wanted the type that the place asks for, e.g. yes or no for a condition.
 */
export function check(expr: Expr, scope: Scope, wanted: ValueType | null = null): { type: ValueType, problems: ExpressionProblem[] } {
  const checker = new Checker(scope)
  const type = checker.typeOf(expr)
  if (wanted && (type.kind === 'null' || !comparable(type, wanted))) {
    checker.report('wrong-type', expr, `${typeName(wanted) === typeName(BOOLEAN) ? 'A condition' : typeName(wanted)} is wanted here; this gives ${typeName(type)}.`)
  }
  return { type, problems: checker.problems }
}

class Checker {
  readonly problems: ExpressionProblem[] = []
  constructor(private readonly scope: Scope) {}

  report(code: ExpressionProblemCode, span: Span, sentence: string, instead: string | null = null): ValueType {
    this.problems.push({ code, sentence, instead, from: span.from, to: span.to })
    return UNKNOWN
  }

  typeOf(expr: Expr): ValueType {
    switch (expr.kind) {
      case 'number': return NUMBER
      case 'text': return TEXT
      case 'boolean': return BOOLEAN
      case 'null': return NULL
      case 'date': return DATE
      case 'name': return this.name(expr)
      case 'list': return this.list(expr)
      case 'compare': return this.compare(expr)
      case 'between': return this.between(expr)
      case 'in': return this.membership(expr)
      case 'and': case 'or':
        for (const part of expr.parts) this.expect(part, BOOLEAN, `Both sides of “${expr.kind}” are conditions`)
        return BOOLEAN
      case 'not':
        this.expect(expr.value, BOOLEAN, '“not” takes a condition')
        return BOOLEAN
      case 'arithmetic':
        this.expect(expr.left, NUMBER, `“${expr.op}” works on numbers`)
        this.expect(expr.right, NUMBER, `“${expr.op}” works on numbers`)
        return NUMBER
      case 'negate':
        this.expect(expr.value, NUMBER, '“-” works on numbers')
        return NUMBER
      case 'if': return this.conditional(expr)
      case 'call': return this.call(expr)
    }
  }

  private name(expr: ExprOf<'name'>): ValueType {
    const found = this.scope.lookup(expr.name)
    if (!found) {
      const near = nearest(expr.name, this.scope.names())
      return this.report('unknown-name', expr, `No question has the code “${expr.name}”.${near ? ` Did you mean “${near}”?` : ''}`, near)
    }
    if (found.later) this.report('later-name', expr, `“${expr.name}” is asked later than this; a rule may use only what comes before it, or stands in the same section.`)
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
    const found = this.typeOf(expr)
    if (found.kind !== 'null' && comparable(found, type)) return
    this.report('wrong-type', expr, `${rule}; this is ${typeName(found)}.`)
  }

  private compare(expr: ExprOf<'compare'>): ValueType {
    const left = this.typeOf(expr.left)
    const right = this.typeOf(expr.right)
    this.comparison(expr.op === '=' || expr.op === '!=', { expr: expr.left, type: left }, { expr: expr.right, type: right }, expr)
    return BOOLEAN
  }

  /** Whether two sides can be compared: alike, ordered where order is asked, codes among the choices. */
  private comparison(isEquality: boolean, left: Side, right: Side, span: Span) {
    if (!comparable(left.type, right.type)) {
      this.report('wrong-type', span, `${sentenceStart(typeName(left.type))} is compared with ${typeName(right.type)}.`)
      return
    }
    if (!isEquality) {
      const unordered = [left, right].find(s => !['number', 'date', 'unknown'].includes(s.type.kind))
      if (unordered) this.report('wrong-type', span, `${sentenceStart(typeName(unordered.type))} has no order; only numbers and dates can be less or greater.`)
      return
    }
    this.codes(left, right)
    this.codes(right, left)
    if (left.type.kind === 'code' && right.type.kind === 'code') this.sharedCode(left.type.choices, right.type.choices, span)
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
        this.report('label-for-code', expr, `“${code}” is a label; its code is “${own}”.`, JSON.stringify(own))
        return
      }
    }
    const near = nearest(code, choices.keys())
    this.report('unknown-code', expr, `“${code}” is not among the choices.${near ? ` Did you mean “${near}”?` : ''}`, near && JSON.stringify(near))
  }

  private sharedCode(a: Choices, b: Choices, span: Span) {
    if (a !== b && ![...a.keys()].some(code => b.has(code))) this.report('unknown-code', span, 'The two questions have no code in common.')
  }

  private between(expr: ExprOf<'between'>): ValueType {
    const value = { expr: expr.value, type: this.typeOf(expr.value) }
    for (const end of [expr.low, expr.high]) this.comparison(false, value, { expr: end, type: this.typeOf(end) }, end)
    return BOOLEAN
  }

  private membership(expr: ExprOf<'in'>): ValueType {
    const value = { expr: expr.value, type: this.typeOf(expr.value) }
    if (expr.tests.length === 0) this.report('wrong-type', expr, 'The list after “in” is empty, so this is never true.')
    for (const test of expr.tests) this.membershipTest(value, test, expr.bare)
    return BOOLEAN
  }

  private membershipTest(value: Side, test: TestNode, bare: boolean) {
    if (test.kind === 'range') {
      for (const end of [test.low, test.high]) this.comparison(false, value, { expr: end, type: this.typeOf(end) }, end)
      return
    }
    if (test.kind === 'unaryTest') {
      this.comparison(test.op === '=' || test.op === '!=', value, { expr: test.value, type: this.typeOf(test.value) }, test)
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
      return this.report('unknown-function', expr, `There is no function “${expr.name}”.${near ? ` Did you mean “${near}”?` : ''}`, near)
    }
    this.argumentsOf(expr, called, args)
    return called.result(args)
  }

  private argumentsOf(expr: ExprOf<'call'>, called: FeelFunction, types: readonly ValueType[]) {
    const [first] = called.parameters
    const many = first?.items === true
    const [least, most] = many ? [1, Infinity] : [called.parameters.length, called.parameters.length]
    if (types.length < least || types.length > most) {
      this.report('wrong-type', expr, `“${expr.name}” takes ${many ? 'at least one value' : `${least} value${least === 1 ? '' : 's'}`}: ${expr.name}(${called.parameters.map(p => p.name).join(', ')}).`)
      return
    }
    types.forEach((type, i) => {
      const parameter = many ? first : called.parameters[i]
      const item = many && types.length === 1 && type.kind === 'list' ? type.of : type
      if (parameter && !takes(parameter, item)) this.report('wrong-type', expr.args[i] ?? expr, `“${expr.name}” takes ${WANTED[parameter.takes]} here; this is ${typeName(type)}.`)
    })
    const [list, element] = types
    const literal = expr.args[1]
    if (expr.name === 'list contains' && list?.kind === 'list' && element && literal) {
      this.comparison(true, { expr, type: list.of }, { expr: literal, type: element }, literal)
    }
  }
}

interface Side { expr: Expr, type: ValueType }

const WANTED: Record<Parameter['takes'], string> = { number: 'a number', text: 'a text', date: 'a date', list: 'a list', value: 'a value' }

function takes(parameter: Parameter, type: ValueType): boolean {
  if (type.kind === 'unknown') return true
  if (type.kind === 'null') return parameter.takes === 'value'
  if (parameter.takes === 'value') return true
  return comparable(type, { number: NUMBER, text: TEXT, date: DATE, list: { kind: 'list', of: UNKNOWN } as const }[parameter.takes])
}

const sentenceStart = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
