import type { Span } from './tree'

export type ExpressionProblemCode =
  'unknown-name' | 'later-name' | 'wrong-type' | 'unknown-code' | 'label-for-code' | 'unknown-function'

/** An error in an expression: its place, a sentence for people, and the text that would be right where there is one. */
export interface ExpressionProblem extends Span {
  code: ExpressionProblemCode
  sentence: string
  instead: string | null
}

/** An error at a place of an expression. */
export const problemAt = (
  code: ExpressionProblemCode,
  { from, to }: Span,
  sentence: string,
  instead: string | null = null,
): ExpressionProblem => ({ code, sentence, instead, from, to })
