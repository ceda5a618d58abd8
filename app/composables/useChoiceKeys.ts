import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'

const TYPED_IN = 'input:not([type=radio]):not([type=checkbox]), textarea, select, [contenteditable=true]'
const CHOICES = 'input[type=radio], input[type=checkbox]'

/** The choice that a key stands for: its own name (a step of a scale, yes, no), else its place among all. */
function choiceOf(key: string, choices: readonly HTMLInputElement[]): HTMLInputElement | undefined {
  const nameOf = (choice: HTMLInputElement) => choice.labels?.[0]?.textContent?.trim().toLowerCase() ?? ''
  const isDigit = /^[0-9]$/.test(key)
  if (!isDigit)
    return choices.find(choice => ['yes', 'no'].includes(nameOf(choice)) && nameOf(choice)[0] === key)
  const hasDigits = choices.some(choice => /^\d$/.test(nameOf(choice)))
  return hasDigits ? choices.find(choice => nameOf(choice) === key) : choices[Number(key) - 1]
}

/** Where one question stands alone on a page, a key chooses: 1 to 9 by place, y and n, the number itself on a scale. `page`: what holds it; null for none. */
export function useChoiceKeys(page: Ref<HTMLElement | null>, isAlone: () => boolean) {
  useEventListener('keydown', event => {
    const { key, target, altKey, ctrlKey, metaKey } = event
    if (!isAlone() || altKey || ctrlKey || metaKey || event.defaultPrevented) return
    if (target instanceof Element && target.closest(TYPED_IN)) return
    const choices = [...(page.value?.querySelectorAll<HTMLInputElement>(CHOICES) ?? [])]
    // Several groups of choices, as in a grid: a key would not say which.
    if (new Set(choices.map(choice => choice.name)).size !== 1) return
    const chosen = choiceOf(key.toLowerCase(), choices)
    if (!chosen) return
    event.preventDefault()
    chosen.click()
    chosen.focus()
  })
}
