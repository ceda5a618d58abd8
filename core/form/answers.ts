/**
 * An answer as files, requests and the store hold it: text, number, boolean, ISO date, code, list of codes, money, entries of a
 * repeating group; null for blank. A number of more than 15 digits is held as text.
 */
export type Answer = null | boolean | number | string | readonly Answer[] | { readonly [key: string]: Answer }
/** The answers of a response by question code; of a repeating group, a list of such. */
export type Answers = Readonly<Record<string, Answer>>

export const isRecord = (answer: Answer | undefined): answer is { readonly [key: string]: Answer } =>
  typeof answer === 'object' && answer !== null && !Array.isArray(answer)

/** How deep answers may nest: groups in groups, and a record inside. */
const DEEPEST = 24

/** Whether a value read from JSON has the shape of an answer, within bounds. */
export function isAnswer(value: unknown, depth = 0): value is Answer {
  if (value === null || typeof value === 'boolean' || typeof value === 'string') return true
  if (typeof value === 'number') return Number.isFinite(value)
  if (typeof value !== 'object' || depth > DEEPEST) return false
  return Object.values(value).every(inner => isAnswer(inner, depth + 1))
}

/** Whether two answers are the same, whatever the order of their members. */
export function sameAnswer(a: Answer, b: Answer): boolean {
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item: Answer, i) => sameAnswer(item, b[i] ?? null))
  if (!isRecord(a) || !isRecord(b)) return a === b
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every(key => sameAnswer(a[key] ?? null, b[key] ?? null))
}
