import { defineStore } from 'pinia'
import type { Finding } from '#core/prove/finding'
import type { Address } from '#core/form/walk'

/** What is only said because something has nothing in it yet. */
const EMPTINESS: ReadonlySet<string> = new Set(['empty-section', 'empty-list'])

/** Rows that were just made: that they are still empty is not said before they are left. */
export const useBegunRows = defineStore('begunRows', () => {
  const rows = ref<readonly Address[]>([])
  const begin = (address: Address) => (rows.value = [...rows.value, address])
  /** Only one of them is still being made. */
  const leaveBut = (address: Address | null) => {
    if (rows.value.some(r => r !== address)) rows.value = rows.value.filter(r => r === address)
  }
  const isQuiet = ({ code, address }: Finding): boolean =>
    EMPTINESS.has(code) && address !== null && rows.value.includes(address)
  return { rows, begin, leaveBut, isQuiet }
})
