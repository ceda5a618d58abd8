import { defineStore } from 'pinia'

/** The rule that was copied last, to be put on other rows; kept while the browser is open, so it goes from form to form. */
export const useRuleClip = defineStore('ruleClip', () => {
  const text = ref<string | null>(null)
  return { text }
})
