import { defineStore } from 'pinia'
import type { Condition } from '#core/expressions/pointing'

/** A rule as somebody left it: what is not finished of it is not in the draft. */
export interface BegunRule {
  /** As it is being pointed at; null: not. */
  condition: Condition | null
  /** The rule that it was begun on; another one since then counts for more. */
  basis: string | undefined
  /** Whether it is written as text. */
  isText: boolean
}

/** Rules and checks that have been begun, as long as the page is open: kept while other rows are looked at. */
export const useBegunRules = defineStore('begunRules', () => {
  const rules = shallowReactive(new Map<string, BegunRule>())
  /** The message of a check whose rule is not written yet, by what it is a check of. */
  const checks = shallowReactive(new Map<string, string>())
  return { rules, checks }
})
