import type { Question } from './questions'

/** What stands behind the field of an amount: its unit, or its currency. */
export function unitOf(question: Question): string | undefined {
  if ('unit' in question) return question.unit
  return 'currency' in question ? question.currency : undefined
}
