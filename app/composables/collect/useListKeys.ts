import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'

/** Steps through the responses of a list while one is read: `J` the next, `K` the one before, `Escape` closes it; at the end of a page on the next one. */
export function useListKeys(rows: Ref<readonly { id: string }[]>, { pages }: { pages: () => number }) {
  const collect = useCollect()
  /** Where the next page is to be opened, once it is there. */
  const waiting = ref<'first' | 'last' | null>(null)
  watch(rows, now => {
    if (!waiting.value) return
    const at = waiting.value === 'first' ? 0 : now.length - 1
    waiting.value = null
    collect.chosen = now[at]?.id ?? collect.chosen
  })
  function step(by: 1 | -1) {
    const at = rows.value.findIndex(row => row.id === collect.chosen)
    const next = rows.value[at < 0 ? 0 : at + by]
    if (next) collect.chosen = next.id
    else turnPage(by)
  }
  function turnPage(by: 1 | -1) {
    const page = collect.page + by
    if (page < 1 || page > pages()) return
    waiting.value = by === 1 ? 'first' : 'last'
    collect.page = page
  }
  watch(
    () => collect.stepped,
    asked => {
      if (asked) step(asked)
      collect.stepped = null
    },
  )
  useEventListener('keydown', event => {
    if (isTyped(event)) return
    if (event.key === 'j') step(1)
    else if (event.key === 'k') step(-1)
    else if (event.key === 'Escape') collect.chosen = null
  })
}

/** Whether a key is for a field, a dialog or the system. */
function isTyped({ target, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
  if (ctrlKey || metaKey || altKey) return true
  return (
    target instanceof HTMLElement &&
    target.closest('input, textarea, select, [role=dialog], .v-overlay') !== null
  )
}
