import type { Edit } from '#core/form/edits'
import { sameAnswer, isAnswer } from '#core/form/answers'

/** What two people changed at once: a sentence, and the edit that takes the other's value where there is one. */
export interface Clash {
  sentence: string
  theirs: Edit | null
}

/** What an edit sets, in words: so that what could not be made can be read. */
export function describeEdit(edit: Edit): string {
  if (!('set' in edit)) return ''
  const parts = Object.entries(edit.set).map(([key, value]) => `${key}: ${valueText(value)}`)
  return `(${parts.join(', ').slice(0, 300)})`
}

const valueText = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value))
const quoted = (value: unknown): string => (typeof value === 'string' ? `“${value}”` : JSON.stringify(value))

/** Two edits that set the same property of the same thing to different values; null when they don't. */
export function findClash(theirs: Edit, own: Edit, by: string): Clash | null {
  if (theirs.do !== 'change' || own.do !== 'change' || theirs.what !== own.what) return null
  const key = Object.keys(own.set).find(k => k in theirs.set && !isSame(theirs.set[k], own.set[k]))
  if (key === undefined) return null
  const what = own.what.replace(/^\w+\//, '')
  const values = `theirs was ${quoted(theirs.set[key])}, yours ${quoted(own.set[key])} stands`
  return {
    sentence: `${by} changed the ${key} of ${what} at the same time: ${values}.`,
    theirs: { do: 'change', what: own.what, set: { [key]: theirs.set[key] } },
  }
}

/** What an edit sets is JSON, as answers are. */
const isSame = (a: unknown, b: unknown): boolean =>
  a === b || (isAnswer(a) && isAnswer(b) && sameAnswer(a, b))
