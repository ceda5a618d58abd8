import { ExpressionError, type Token } from './lex'
import type { Span } from './tree'

/** How deep brackets may nest. */
export const DEEPEST = 100

/** A place among the tokens of an expression, and the ways to go on from it. */
export class TokenReader {
  protected at = 0
  protected depth = 0
  constructor(protected readonly tokens: readonly Token[]) {}

  protected get token(): Token {
    const token = this.tokens[this.at]
    if (!token) throw new ExpressionError('The expression ends too early.', 0, 0)
    return token
  }

  protected isSign = (value: string) => this.token.kind === 'sign' && this.token.value === value
  protected isWord = (value: string) => this.token.kind === 'word' && this.token.value === value
  protected next(): Token {
    const token = this.token
    if (token.kind !== 'end') this.at += 1
    return token
  }

  protected takeSign(value: string): boolean {
    if (!this.isSign(value)) return false
    this.at += 1
    return true
  }

  protected takeWord(value: string): boolean {
    if (!this.isWord(value)) return false
    this.at += 1
    return true
  }

  protected fail(message: string, span: Span = this.token, instead: string | null = null): never {
    throw new ExpressionError(message, span.from, span.to, instead)
  }

  protected closeWith(sign: string, open: Span): number {
    const token = this.token
    if (this.takeSign(sign)) return token.to
    return this.fail(`“${sign}” is missing here; the bracket was opened at character ${open.from + 1}.`)
  }

  /** Reads what `read` reads, or goes back to where it began when there is no such thing here. */
  protected attempt<T>(read: () => T | null): T | null {
    const { at, depth } = this
    try {
      const result = read()
      if (result) return result
    } catch (error) {
      if (!(error instanceof ExpressionError)) throw error
    }
    this.at = at
    this.depth = depth
    return null
  }

  /** Reads something inside a bracket or a sign: one step deeper. */
  protected deeper<T>(what: string, read: () => T): T {
    this.depth += 1
    if (this.depth > DEEPEST) this.fail(`${what} nest more than ${DEEPEST} deep.`)
    const result = read()
    this.depth -= 1
    return result
  }
}
