import type { FeelFunction, Parameter } from './functions'
import { patternOf } from './patterns'
import { isOrdered } from './operandTypes'
import type { Expr, ExprOf } from './tree'
import { BOOLEAN, areComparable, NUMBER, TEXT, typeName, UNKNOWN, type ValueType } from './types'

/** An argument that does not fit: where it stands, and what is wrong with it. */
export interface ArgumentProblem {
  at: Expr
  sentence: string
}

/** What is wrong with the number of arguments of a call; null when it fits. */
export function countProblem(name: string, called: FeelFunction, count: number): string | null {
  const takesMany = called.parameters[0]?.items === true
  const least = takesMany ? 1 : called.parameters.filter(p => !p.optional).length
  const most = takesMany ? Infinity : called.parameters.length
  if (count >= least && count <= most) return null
  const wanted = takesMany ? 'at least one value' : `${least} value${least === 1 ? '' : 's'}`
  return `“${name}” takes ${wanted}: ${name}(${called.parameters.map(p => p.name).join(', ')}).`
}

/** The arguments of a call that have a type which the function does not take, or that can't be read. */
export function* argumentProblems(
  expr: ExprOf<'call'>,
  called: FeelFunction,
  types: readonly ValueType[],
): Generator<ArgumentProblem> {
  yield* typeProblems(expr, called, types)
  const pattern = expr.args[1]
  if (expr.name === 'matches' && pattern?.kind === 'text' && !patternOf(pattern.value))
    yield { at: pattern, sentence: 'This is not a pattern that can be read.' }
}

function* typeProblems(
  expr: ExprOf<'call'>,
  called: FeelFunction,
  types: readonly ValueType[],
): Generator<ArgumentProblem> {
  const [first] = called.parameters
  const takesMany = first?.items === true
  for (const [i, type] of types.entries()) {
    const parameter = takesMany ? first : called.parameters[i]
    const item = takesMany && types.length === 1 && type.kind === 'list' ? type.of : type
    if (parameter && !takes(parameter, item))
      yield {
        at: expr.args[i] ?? expr,
        sentence: `“${expr.name}” takes ${WANTED[parameter.takes]} here; this is ${typeName(type)}.`,
      }
  }
  if (first?.takes === 'ordered') yield* mixedKinds(expr, types)
}

/** Values of two kinds have no least and no greatest. */
function* mixedKinds(expr: ExprOf<'call'>, types: readonly ValueType[]): Generator<ArgumentProblem> {
  const [one] = types
  const at = one ? types.findIndex(type => !areComparable(one, type)) : -1
  if (!one || at <= 0) return
  const other = typeName(types[at] ?? UNKNOWN)
  yield {
    at: expr.args[at] ?? expr,
    sentence: `“${expr.name}” takes values of one kind; ${typeName(one)} and ${other} are two.`,
  }
}

const WANTED: Record<Parameter['takes'], string> = {
  boolean: 'yes or no',
  number: 'a number',
  text: 'a text',
  date: 'a date',
  list: 'a list',
  ordered: 'numbers, dates, times or texts',
  value: 'a value',
}

/** The types that parameters take which take just one. */
const PLAIN = {
  number: NUMBER,
  text: TEXT,
  boolean: BOOLEAN,
  list: { kind: 'list', of: UNKNOWN },
} as const satisfies Partial<Record<Parameter['takes'], ValueType>>

function takes(parameter: Parameter, type: ValueType): boolean {
  if (type.kind === 'unknown') return true
  if (parameter.takes === 'value') return true
  if (type.kind === 'null') return false
  if (parameter.takes === 'ordered') return isOrdered(type) || type.kind === 'text'
  if (parameter.takes === 'date') return type.kind === 'date' || type.kind === 'dateTime'
  return areComparable(type, PLAIN[parameter.takes])
}
