import type { Compiled } from './compiled'
import { durationBetween as timeBetween, isDuration, moveDate, scaleDuration, type Duration } from './dates'
import { add, divide, isNumber, multiply, negate, power, subtract, type Num } from './decimal'
import type { ArithmeticOp } from './tree'
import type { Value } from './types'

const NUMERIC: Record<ArithmeticOp, (a: Num, b: Num) => Num | null> = {
  '+': add,
  '-': subtract,
  '*': multiply,
  '/': divide,
  '**': power,
}

/** `+ - * / **` of two compiled sides. */
export function compileArithmetic(op: ArithmeticOp, left: Compiled, right: Compiled): Compiled {
  const run = NUMERIC[op]
  return (slots, locals) => {
    const a = left(slots, locals)
    const b = right(slots, locals)
    if (a === null || b === null) return null
    return isNumber(a) && isNumber(b) ? run(a, b) : calculateWithTimes(op, a, b)
  }
}

/** Texts are joined by `+`; dates and durations are added and subtracted, durations stretched (DMN 1.5, table 48 and on). */
function calculateWithTimes(op: ArithmeticOp, a: Value, b: Value): Value {
  if (typeof a === 'string') return calculateFromText(op, a, b)
  if (isDuration(a)) return calculateFromDuration(op, a, b)
  return isNumber(a) && isDuration(b) && op === '*' ? scaleDuration(b, Number(a)) : null
}

function calculateFromText(op: ArithmeticOp, a: string, b: Value): Value {
  const isPlus = op === '+'
  if (!isPlus && op !== '-') return null
  if (typeof b === 'string') return isPlus ? a + b : timeBetween(b, a)
  return isDuration(b) ? moveDate(a, isPlus ? b : { ...b, amount: -b.amount }) : null
}

function calculateFromDuration(op: ArithmeticOp, a: Duration, b: Value): Value {
  if (typeof b === 'string') return op === '+' ? moveDate(b, a) : null
  if (isDuration(b)) return sumOfDurations(op, a, b)
  if (!isNumber(b)) return null
  if (op === '*') return scaleDuration(a, Number(b))
  return op === '/' && b !== 0 ? scaleDuration(a, 1 / Number(b)) : null
}

function sumOfDurations(op: ArithmeticOp, a: Duration, b: Duration): Value {
  if (a.unit !== b.unit) return null
  if (op === '/') return b.amount === 0 ? null : divide(a.amount, b.amount)
  if (op !== '+' && op !== '-') return null
  return scaleDuration({ unit: a.unit, amount: op === '+' ? a.amount + b.amount : a.amount - b.amount }, 1)
}

/** `-x`. */
export function compileNegative(value: Compiled): Compiled {
  return (slots, locals) => {
    const v = value(slots, locals)
    if (isNumber(v)) return negate(v)
    return isDuration(v) ? scaleDuration(v, -1) : null
  }
}
