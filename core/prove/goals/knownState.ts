import type { Filled } from '../../fill/frame'
import type { Answers } from '../../form/answers'

/** A state of the form in which every section before the current one is complete. */
export interface KnownState {
  state: Filled
  /** The index of the current section; the number of sections means the finish. */
  current: number
  /** Sections that the way came to and passed over, since they don’t show. */
  passed: ReadonlySet<number>
  /** What was answered. */
  answers: Answers
}
