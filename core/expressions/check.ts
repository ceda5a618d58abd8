import { argumentProblems, countProblem } from './checkArguments'
import { codeProblems, comparisonProblems, saidCodes, type SaidCode, type Side } from './checkComparison'
import { durationFrom } from './dates'
import type { ExpressionProblem, ExpressionProblemCode } from './problem'
import { FUNCTIONS, type FeelFunction } from './functions'
import { startSentence } from './sentenceStart'
import { nearest } from './near'
import { membersOf, TIMED_RESULTS } from './operandTypes'
import { handleByKind, type ByKind, type Expr, type ExprOf, type Span, type TestNode } from './tree'
import {
  BOOLEAN,
  areComparable,
  DATE,
  DATE_TIME,
  joinTypes,
  MONTHS,
  NULL,
  NUMBER,
  SECONDS,
  TEXT,
  TIME,
  typeName,
  UNKNOWN,
  type ValueType,
} from './types'

/** What the names in an expression stand for at the place where it is written. */
export interface Scope {
  /**
   * The type of a question; `later` when it comes after the place; `within` when it is asked in each entry of a repeating group that
   * the place is not in; `onlyQuoted` when only texts may name it; undefined when the form has no such question.
   */
  lookup: (
    name: string,
  ) => { type: ValueType; later: boolean; within?: string; onlyQuoted?: boolean } | undefined
  /** The names to suggest from. */
  names: () => Iterable<string>
}

/**
 * Types an expression against a form: every node gets a type before anything runs.
 * @param wanted the type that the place asks for, e.g. yes or no for a condition.
 */
export function checkTypes(
  expr: Expr,
  scope: Scope,
  wanted: ValueType | null = null,
): { type: ValueType; problems: ExpressionProblem[]; codes: readonly SaidCode[] } {
  const checker = new Checker(scope)
  const type = checker.typeOf(expr)
  if (wanted) checker.wanted(expr, type, wanted)
  return { type, problems: checker.problems, codes: checker.codes }
}

class Checker {
  readonly problems: ExpressionProblem[] = []
  readonly codes: SaidCode[] = []
  constructor(private readonly scope: Scope) {}

  /** Whether a whole expression gives what its place asks for; a code must be among the choices. */
  wanted(expr: Expr, type: ValueType, wanted: ValueType) {
    if (type.kind === 'null' || !areComparable(type, wanted)) {
      this.report(
        'wrong-type',
        expr,
        `${wanted.kind === 'boolean' ? 'A condition' : startSentence(typeName(wanted))} is wanted here; this gives ${typeName(type)}.`,
      )
      return
    }
    const of = wanted.kind === 'list' ? wanted.of : wanted
    for (const part of wanted.kind === 'list' && expr.kind === 'list' ? expr.items : [expr]) {
      this.problems.push(...codeProblems({ expr: part, type: of }, { expr: part, type }))
      this.codes.push(...saidCodes(of, part))
    }
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
    return handleByKind(this.byKind, expr)
  }

  private readonly byKind: ByKind<ValueType> = {
    number: () => NUMBER,
    text: () => TEXT,
    boolean: () => BOOLEAN,
    null: () => NULL,
    date: () => DATE,
    time: () => TIME,
    dateTime: () => DATE_TIME,
    duration: e => (durationFrom(e.value)?.unit === 'months' ? MONTHS : SECONDS),
    name: e => this.name(e),
    list: e => this.list(e),
    compare: e => this.compare(e),
    between: e => this.between(e),
    in: e => this.membership(e),
    and: e => this.junction(e),
    or: e => this.junction(e),
    not: e => {
      this.expect(e.value, BOOLEAN, '“not” takes a condition')
      return BOOLEAN
    },
    arithmetic: e => this.arithmetic(e),
    negate: e => this.negation(e),
    path: e => this.path(e),
    filter: e => this.filter(e),
    quantified: e => this.quantified(e),
    if: e => this.conditional(e),
    call: e => this.call(e),
  }

  private junction(expr: ExprOf<'and' | 'or'>): ValueType {
    for (const part of expr.parts) this.expect(part, BOOLEAN, `Both sides of “${expr.kind}” are conditions`)
    return BOOLEAN
  }

  private negation(expr: ExprOf<'negate'>): ValueType {
    const type = this.typeOf(expr.value)
    if (type.kind === 'months' || type.kind === 'seconds') return type
    return this.fits(expr.value, type, NUMBER, '“-” works on numbers')
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
    if (found.onlyQuoted)
      return this.report(
        'unknown-name',
        expr,
        `“${expr.name}” is a standing value: texts may quote it, rules can’t rest on it, since it is not known when they are proved.`,
      )
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
      const joined = joinTypes(of, this.typeOf(item))
      if (!joined) return this.report('wrong-type', item, 'All items of a list are of one kind.')
      of = joined
    }
    return { kind: 'list', of }
  }

  private expect(expr: Expr, type: ValueType, rule: string) {
    this.fits(expr, this.typeOf(expr), type, rule)
  }

  private fits(expr: Expr, found: ValueType, wanted: ValueType, rule: string): ValueType {
    return found.kind !== 'null' && areComparable(found, wanted)
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
        ? `${startSentence(typeName(inner))} has no parts to name.`
        : `There is no “${member}” here.${near ? ` Did you mean “${near}”?` : ` There is: ${[...members.keys()].slice(0, 8).join(', ')}.`}`,
      near,
    )
  }

  private arithmetic(expr: ExprOf<'arithmetic'>): ValueType {
    const [left, right] = [this.typeOf(expr.left), this.typeOf(expr.right)]
    const both = TIMED_RESULTS[`${left.kind} ${expr.op} ${right.kind}`]
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

  private comparison(isEquality: boolean, left: Side, right: Side, span: Span) {
    this.problems.push(...comparisonProblems(isEquality, left, right, span))
    this.codes.push(...saidCodes(left.type, right.expr), ...saidCodes(right.type, left.expr))
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
    const joined = joinTypes(this.typeOf(expr.then), this.typeOf(expr.else))
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

  /** Whether a call has as many arguments as its function takes, each of a fitting type. */
  private argumentsOf(expr: ExprOf<'call'>, called: FeelFunction, types: readonly ValueType[]) {
    const problem = countProblem(expr.name, called, types.length)
    if (problem) {
      this.report('wrong-type', expr, problem)
      return
    }
    for (const { at, sentence } of argumentProblems(expr, called, types))
      this.report('wrong-type', at, sentence)
    const [list, element] = types
    const sought = expr.args[1]
    if (expr.name === 'list contains' && list?.kind === 'list' && element && sought)
      this.comparison(true, { expr, type: list.of }, { expr: sought, type: element }, sought)
  }
}
