import { nearest } from './near'
import { isOrdered } from './operandTypes'
import { problemAt, type ExpressionProblem } from './problem'
import { startSentence } from './sentenceStart'
import type { Expr, ExprOf, Span } from './tree'
import { areComparable, typeName, type Choices, type ValueType } from './types'

/** One side of a comparison. */
export interface Side {
  expr: Expr
  type: ValueType
}

/** What is wrong with comparing two sides: not alike, without an order where one is asked, a code that is not among the choices. */
export function* comparisonProblems(
  isEquality: boolean,
  left: Side,
  right: Side,
  span: Span,
): Generator<ExpressionProblem> {
  if (!areComparable(left.type, right.type)) {
    const sentence = `${startSentence(typeName(left.type))} is compared with ${typeName(right.type)}.`
    yield problemAt('wrong-type', span, sentence)
    return
  }
  if (!isEquality) {
    const unordered = [left, right].find(s => !isOrdered(s.type))
    if (!unordered) return
    const kind = startSentence(typeName(unordered.type))
    const sentence = `${kind} has no order; only numbers, dates and times can be less or greater.`
    yield problemAt('wrong-type', span, sentence)
    return
  }
  yield* codeProblems(left, right)
  yield* codeProblems(right, left)
  if (left.type.kind !== 'code' || right.type.kind !== 'code') return
  if (!haveCodeInCommon(left.type.choices, right.type.choices))
    yield problemAt('unknown-code', span, 'The two questions have no code in common.')
}

/** A text that says the code of a choice, and the choices that it is one of. */
export interface SaidCode {
  expr: ExprOf<'text'>
  choices: Choices
}

/** The texts beside something of a type that say a code, those in the branches of a condition too. */
export function saidCodes(type: ValueType, beside: Expr): SaidCode[] {
  if (type.kind !== 'code') return []
  if (beside.kind === 'if') return [beside.then, beside.else].flatMap(branch => saidCodes(type, branch))
  return beside.kind === 'text' ? [{ expr: beside, choices: type.choices }] : []
}

/** What is wrong with a text beside a choice: it is one of its codes. */
export function* codeProblems(choice: Side, other: Side): Generator<ExpressionProblem> {
  if (choice.type.kind !== 'code' || other.expr.kind !== 'text') return
  const problem = codeProblem(choice.type.choices, other.expr)
  if (problem) yield problem
}

function codeProblem(choices: Choices, expr: ExprOf<'text'>): ExpressionProblem | null {
  const code = expr.value
  if (choices.has(code)) return null
  const labelled = codeLabelled(choices, code)
  if (labelled !== null) {
    const sentence = `“${code}” is a label; its code is “${labelled}”.`
    return problemAt('label-for-code', expr, sentence, JSON.stringify(labelled))
  }
  const near = nearest(code, choices.keys())
  const hint = near ? ` Did you mean “${near}”?` : ''
  return problemAt(
    'unknown-code',
    expr,
    `“${code}” is not among the choices.${hint}`,
    near && JSON.stringify(near),
  )
}

/** The code whose label was written in its place; null when it is no label. */
function codeLabelled(choices: Choices, text: string): string | null {
  const wanted = text.trim().toLowerCase()
  for (const [code, label] of choices)
    if (label.trim().toLowerCase() === wanted && code.toLowerCase() !== wanted) return code
  return null
}

const haveCodeInCommon = (a: Choices, b: Choices): boolean =>
  a === b || [...a.keys()].some(code => b.has(code))
