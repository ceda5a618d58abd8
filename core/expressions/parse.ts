import { isNumber, negate } from './decimal'
import { ExpressionError, tokensOf, type Token } from './lex'
import { functionNameAt } from './functionNames'
import { DEEPEST, TokenReader } from './tokenReader'
import { BOUND_NAMES, type CompareOp, type Expr, type TestNode } from './tree'

export { ExpressionError } from './lex'

/** Words that can't be question codes. */
export const KEYWORDS: ReadonlySet<string> = new Set([
  'and',
  'or',
  'not',
  'in',
  'between',
  'if',
  'then',
  'else',
  'true',
  'false',
  'null',
  'some',
  'every',
  'satisfies',
  'for',
  'return',
  'instance',
  'of',
  'function',
  'row',
  'item',
])

const COMPARE: readonly string[] = ['=', '!=', '<', '<=', '>', '>=']
const INSTEAD: Record<string, string> = { '==': '=', '<>': '!=', '&&': 'and', '||': 'or', '!': 'not(…)' }

/** What a `[` right behind it filters; elsewhere it begins a list or a range. */
const FILTERABLE: ReadonlySet<Expr['kind']> = new Set(['name', 'path', 'filter', 'call'])
const isCompareOp = (sign: string): sign is CompareOp => COMPARE.includes(sign)

/**
 * Reads an expression of the FEEL subset into a tree. Precedence is that of DMN 1.5: `or`, `and`, comparisons (with `in` and
 * `between`, none of which chain), `+ -`, `* /`, `**`, unary minus.
 * @throws ExpressionError with the position when the text is not an expression.
 */
export function parse(source: string): Expr {
  const parser = new Parser(tokensOf(source))
  const expr = parser.expression()
  parser.expectEnd()
  return expr
}

const READ = new Map<string, Expr | ExpressionError>()
const MOST_READ = 20_000

/**
 * The same, kept: rules are read again after every edit, most of them unchanged. Trees are never changed, so they may be shared.
 * @throws ExpressionError like `parse`.
 */
export function parseCached(source: string): Expr {
  let read = READ.get(source)
  if (read === undefined) {
    if (READ.size >= MOST_READ) READ.clear()
    try {
      read = parse(source)
    } catch (error) {
      if (!(error instanceof ExpressionError)) throw error
      read = error
    }
    READ.set(source, read)
  }
  if (read instanceof ExpressionError) throw read
  return read
}

class Parser extends TokenReader {
  expectEnd() {
    const token = this.token
    if (token.kind === 'end') return
    if (token.kind === 'sign' && INSTEAD[token.value])
      this.fail(`Write “${INSTEAD[token.value]}” in place of “${token.value}”.`, token, INSTEAD[token.value])
    if (token.kind === 'sign' && isCompareOp(token.value))
      this.fail('Comparisons don’t chain: write “a < b and b < c”, or use brackets.', token)
    this.fail('An operator such as “and”, “or”, “=” is missing before this.', token)
  }

  expression(): Expr {
    return this.deeper('Brackets', () => this.construct())
  }

  private construct(): Expr {
    if (this.isWord('if')) return this.conditional()
    if (this.isWord('some') || this.isWord('every')) return this.quantified()
    return this.junction('or')
  }

  private conditional(): Expr {
    const { from } = this.next()
    const test = this.expression()
    if (!this.takeWord('then')) this.fail('“then” is missing here.')
    const then = this.expression()
    if (!this.takeWord('else')) this.fail('“else” is missing here: an “if” always says both.')
    const otherwise = this.expression()
    return { kind: 'if', test, then, else: otherwise, from, to: otherwise.to }
  }

  private quantified(): Expr {
    const { from } = this.token
    const mode = this.isWord('some') ? 'some' : 'every'
    this.next()
    const variable = this.next()
    if (variable.kind !== 'word' || KEYWORDS.has(variable.value))
      return this.fail(`“${mode}” needs a name for the entry: ${mode} e in entries satisfies …`, variable)
    if (!this.takeWord('in')) this.fail('“in” is missing here.')
    const over = this.sum()
    if (!this.takeWord('satisfies')) this.fail('“satisfies” is missing here.')
    const satisfies = this.expression()
    return { kind: 'quantified', mode, variable: variable.value, over, satisfies, from, to: satisfies.to }
  }

  private junction(kind: 'and' | 'or'): Expr {
    const operand = () => (kind === 'or' ? this.junction('and') : this.comparison())
    const first = operand()
    if (!this.isWord(kind)) return first
    const parts = [first]
    while (this.takeWord(kind)) parts.push(operand())
    return { kind, parts, from: first.from, to: parts[parts.length - 1]?.to ?? first.to }
  }

  private comparison(): Expr {
    const left = this.sum()
    const token = this.token
    if (token.kind === 'sign' && isCompareOp(token.value)) {
      this.next()
      const right = this.sum()
      return { kind: 'compare', op: token.value, left, right, from: left.from, to: right.to }
    }
    if (this.takeWord('between')) {
      const low = this.sum()
      if (!this.takeWord('and')) this.fail('“between” needs two ends: between 1 and 5.')
      const high = this.sum()
      return { kind: 'between', value: left, low, high, from: left.from, to: high.to }
    }
    if (this.takeWord('in')) return this.membership(left)
    return left
  }

  private membership(value: Expr): Expr {
    const open = this.token
    if (this.isSign('(')) {
      const range = this.attempt(() => this.range())
      if (range) return { kind: 'in', value, tests: [range], bare: false, from: value.from, to: range.to }
      this.next()
      const tests = [this.test()]
      while (this.takeSign(',')) tests.push(this.test())
      const to = this.closeWith(')', open)
      return membershipNode(value, tests, to)
    }
    if (this.isSign('[') || this.isSign(']')) {
      const range = this.attempt(() => this.range())
      if (range) return { kind: 'in', value, tests: [range], bare: false, from: value.from, to: range.to }
    }
    const test = this.token.kind === 'sign' && isCompareOp(this.token.value) ? this.test() : this.sum()
    if (test.kind === 'list')
      return { kind: 'in', value, tests: test.items, bare: false, from: value.from, to: test.to }
    return {
      kind: 'in',
      value,
      tests: [test],
      bare: test.kind !== 'unaryTest',
      from: value.from,
      to: test.to,
    }
  }

  /** One of the tests in `x in (…)`. */
  private test(): TestNode {
    const token = this.token
    if (token.kind === 'sign' && isCompareOp(token.value)) {
      this.next()
      const value = this.sum()
      return { kind: 'unaryTest', op: token.value, value, from: token.from, to: value.to }
    }
    return this.attempt(() => this.range()) ?? this.expression()
  }

  private range(): TestNode | null {
    const open = this.token
    if (open.kind !== 'sign' || !['[', '(', ']'].includes(open.value)) return null
    this.next()
    const low = this.sum()
    if (!this.takeSign('..')) return null
    const high = this.sum()
    const close = this.next()
    if (close.kind !== 'sign' || ![']', ')', '['].includes(close.value)) return null
    return {
      kind: 'range',
      low,
      high,
      lowOpen: open.value !== '[',
      highOpen: close.value !== ']',
      from: open.from,
      to: close.to,
    }
  }

  private leftAssociative(operand: () => Expr, signs: readonly ('+' | '-' | '*' | '/' | '**')[]): Expr {
    let left = operand()
    for (;;) {
      const op = signs.find(s => this.isSign(s))
      if (!op) return left
      this.next()
      const right = operand()
      left = { kind: 'arithmetic', op, left, right, from: left.from, to: right.to }
    }
  }

  private sum = (): Expr => this.leftAssociative(this.product, ['+', '-'])
  private product = (): Expr => this.leftAssociative(this.exponent, ['*', '/'])
  private exponent = (): Expr => this.leftAssociative(this.unary, ['**'])
  private unary = (): Expr => {
    const token = this.token
    if (!this.takeSign('-')) return this.postfix()
    const value = this.deeper('Signs', () => this.unary())
    if (value.kind === 'number' && isNumber(value.value))
      return { ...value, value: negate(value.value), from: token.from }
    return { kind: 'negate', value, from: token.from, to: value.to }
  }

  /** What follows a value: `.member` and `[filter]`. */
  private postfix(): Expr {
    let value = this.primary()
    for (let count = 0; ; count++) {
      const open = this.token
      if (count > DEEPEST) this.fail('This goes too deep.')
      if (this.takeSign('.')) {
        const member = this.next()
        if (member.kind !== 'word') return this.fail('A name is missing after the point.', member)
        value = { kind: 'path', of: value, member: member.value, from: value.from, to: member.to }
      } else if (FILTERABLE.has(value.kind) && this.takeSign('[')) {
        const by = this.expression()
        value = { kind: 'filter', of: value, by, from: value.from, to: this.closeWith(']', open) }
      } else return value
    }
  }

  private primary(): Expr {
    const token = this.next()
    switch (token.kind) {
      case 'number':
      case 'text':
      case 'date':
      case 'time':
      case 'dateTime':
      case 'duration':
        return token
      case 'word':
        return this.word(token)
      case 'end':
        return this.fail('Something is missing at the end.', token)
      case 'sign':
        return this.bracketed(token)
    }
  }

  private bracketed(token: Token & { kind: 'sign' }): Expr {
    if (token.value === '(') {
      const inner = this.expression()
      this.closeWith(')', token)
      return inner
    }
    if (token.value === '[') {
      const items = this.listUntil(']')
      return { kind: 'list', items, from: token.from, to: this.closeWith(']', token) }
    }
    const instead = INSTEAD[token.value]
    if (instead) return this.fail(`Write “${instead}” in place of “${token.value}”.`, token, instead)
    return this.fail(`A question, a value or a bracket should stand here, not “${token.value}”.`, token)
  }

  private listUntil(close: string): Expr[] {
    const items: Expr[] = []
    if (this.isSign(close)) return items
    do items.push(this.expression())
    while (this.takeSign(','))
    return items
  }

  private word(token: Token & { kind: 'word' }): Expr {
    const { from, to, value } = token
    const called = functionNameAt(this.tokens, this.at - 1)
    if (called) {
      this.at += called.words
      const args = this.listUntil(')')
      const end = this.closeWith(')', token)
      if (called.name !== 'not') return { kind: 'call', name: called.name, args, from, to: end }
      const [only] = args
      if (!only || args.length !== 1)
        return this.fail('“not” takes one condition: not(…).', { from, to: end })
      return { kind: 'not', value: only, from, to: end }
    }
    if (value === 'true' || value === 'false') return { kind: 'boolean', value: value === 'true', from, to }
    if (value === 'null') return { kind: 'null', from, to }
    if (value === 'not') return this.fail('“not” needs brackets: not(…).', token)
    if (value === 'some' || value === 'every')
      return this.fail(`“${value}” needs brackets here: (${value} … in … satisfies …).`, token)
    if (value === 'if') return this.fail('“if” needs brackets here: (if … then … else …).', token)
    if (KEYWORDS.has(value) && !BOUND_NAMES.has(value))
      return this.fail(`“${value}” can’t stand here.`, token)
    return { kind: 'name', name: value, from, to }
  }
}

/** `x in ("a", "b")` means the same as `x in ["a", "b"]`; one bracketed value the same as without brackets. */
function membershipNode(value: Expr, tests: TestNode[], to: number): Expr {
  const [only] = tests
  const bare = tests.length === 1 && only !== undefined && only.kind !== 'range' && only.kind !== 'unaryTest'
  if (bare && only.kind === 'list')
    return { kind: 'in', value, tests: only.items, bare: false, from: value.from, to }
  return { kind: 'in', value, tests, bare, from: value.from, to }
}
