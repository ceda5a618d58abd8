import type { Value } from '../expressions/types'
import type { Answer } from '../form/answers'
import type { MessageKind } from '../form/messages'
import type { OfferedRow } from '../form/rows'

/**
 * What an answer amounts to: a value for the rules and the answer as it is kept, or a sentence that says what is wrong.
 * `lost`: codes that are choices of the question but not on offer now. `short`: an answer is given but not finished.
 */
export interface AnswerReading {
  value: Value
  answer: Answer
  wrong: string | null
  /** What is wrong by itself, which the form may have own words for; null for all else. */
  why: MessageKind | null
  other: string | null
  lost: readonly string[]
}
export type GivenAnswer = Exclude<Answer, null>

/** What a choice question offers now: the rows on offer, and all rows by code. */
export interface Offer {
  offered: ReadonlySet<string> | null
  rows: ReadonlyMap<string, OfferedRow>
}

/** No codes. */
export const NONE: readonly string[] = []
export const BLANK: AnswerReading = {
  value: null,
  answer: null,
  wrong: null,
  why: null,
  other: null,
  lost: NONE,
}
/** A reading without anything wrong. */
export const ok = (value: Value, answer: Answer): AnswerReading => ({
  value,
  answer,
  wrong: null,
  why: null,
  other: null,
  lost: NONE,
})
/** A reading that gives no value. */
export const wrong = (sentence: string, why: MessageKind | null = null): AnswerReading => ({
  ...BLANK,
  wrong: sentence,
  why,
})
