import { defineStore } from 'pinia'
import type { EditStep } from './draft/useEditHistory'

/** What Tobbin says in passing: that something is done, and how to take it back. It goes by itself, or with what it tells of. */
export const useSaid = defineStore('said', () => {
  const messages = ref<string[]>([])
  /** The step of the draft that the last message tells of. */
  const step = shallowRef<EditStep | null>(null)
  function say(text: string) {
    step.value = null
    messages.value = [...messages.value, text]
  }
  /** Tells of the last step of the draft. */
  function sayDone(text: string) {
    say(text)
    step.value = useDraft().past.at(-1) ?? null
  }
  return { messages, step, say, sayDone }
})
