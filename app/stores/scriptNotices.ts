import { defineStore } from 'pinia'
import type { Use } from '#core/form/uses'
import type { Address } from '#core/form/walk'

/** What the script has to say about its last step. */
export const useScriptNotices = defineStore('scriptNotices', () => {
  /** What the last step could not do in full. */
  const notes = ref<string[]>([])
  /** What is about to be deleted although something uses it. */
  const doomed = shallowRef<{ addresses: Address[]; uses: Use[] } | null>(null)
  return { notes, doomed }
})
