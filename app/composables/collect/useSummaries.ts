import type { Ref } from 'vue'
import type { Refusal } from '#shared/api/refusal'

/** Milliseconds until it is asked again how far the server is. */
const AGAIN = 700

/** What the server works out of all responses, fetched anew with each question; while it reads them, how far it is. */
export function useSummaries<T extends { isReady: boolean }>(
  fetchNow: () => Promise<T>,
  watched: Ref<unknown>,
) {
  const data = shallowRef<T | null>(null)
  const refusal = ref<Refusal | null>(null)
  const isPending = ref(false)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  async function fetch() {
    clearTimeout(timer)
    const own = (asked += 1)
    isPending.value = true
    try {
      const found = await fetchNow()
      // Something else was asked meanwhile.
      if (own !== asked) return
      data.value = found
      refusal.value = null
      if (!found.isReady) timer = setTimeout(() => void fetch(), AGAIN)
    } catch (error) {
      if (own === asked) refusal.value = refusalOf(error)
    }
    isPending.value = false
  }
  watch(watched, () => void fetch(), { immediate: true })
  onBeforeUnmount(() => {
    asked += 1
    clearTimeout(timer)
  })
  return { data, refusal, isPending }
}
