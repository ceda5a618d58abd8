import type { Value } from '../../expressions/types'
import { amountIn } from '../../fill/amounts'
import { answerOf } from '../../fill/answers'
import type { PlannedQuestion } from '../../fill/planned'
import type { Answer } from '../../form/answers'
import { WRITE_IN } from '../../form/rows'

const NO_ROWS = new Map<string, never>()
/** Whether a value can be given as an answer, whatever is narrowed. */
export function isPossible(value: Value, step: PlannedQuestion): boolean {
  const reading = step.read(sampleAnswer(step, value), { offered: null, rows: step.offer?.rows ?? NO_ROWS })
  return reading.wrong === null && reading.value !== null
}

/** The answer that gives a value to a question. */
export function sampleAnswer({ place: { node } }: PlannedQuestion, value: Value): Answer {
  if (value === WRITE_IN && 'writeIn' in node && node.writeIn) return { [WRITE_IN]: 'Something else' }
  if (node.type === 'money' && node.currencies) {
    const { amount, currency } = amountIn(value, node)
    return { amount: answerOf(amount), currency }
  }
  if (node.type === 'signature') return { typed: 'Signed' }
  if (node.type === 'file') return [{ file: 'sample-0001', name: 'sample.pdf', bytes: 1_000 }]
  if (node.type === 'choices' && Array.isArray(value))
    return value.map((code: Value) =>
      code === WRITE_IN && node.writeIn ? { [WRITE_IN]: 'Something else' } : answerOf(code),
    )
  return answerOf(value)
}
