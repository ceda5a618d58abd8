import { refDebounced } from '@vueuse/core'
import type { ResponseFilter } from '#shared/api/responses'

/** Milliseconds without a further key after which a table is searched. */
const SETTLE = 250
const ALL: ResponseFilter = { search: '', where: '', state: '', release: 0, since: '', until: '' }

/** Which responses of a form are looked at; another filter begins at the first page. */
export function useResponseFilter() {
  const search = ref('')
  const settled = refDebounced(search, SETTLE)
  const chosen = ref<ResponseFilter>({ ...ALL })
  const page = ref(1)
  const size = ref(25)
  const filter = computed((): ResponseFilter => ({ ...chosen.value, search: settled.value }))
  watch(filter, () => (page.value = 1))
  const set = (part: Partial<ResponseFilter>) => (chosen.value = { ...chosen.value, ...part })
  const isNarrowed = computed(() => JSON.stringify(chosen.value) !== JSON.stringify(ALL))
  const clear = () => (chosen.value = { ...ALL })
  return { search, filter, chosen, set, isNarrowed, clear, page, size }
}
