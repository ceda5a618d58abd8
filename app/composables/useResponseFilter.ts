import type { ResponseFilter } from '#shared/api/responses'

/** No response is left out. */
export const ALL_RESPONSES: ResponseFilter = {
  search: '',
  where: '',
  state: '',
  turn: '',
  tray: '',
  release: 0,
  since: '',
  until: '',
}

/** Which responses of a form are looked at; another filter begins at the first page. */
export function useResponseFilter() {
  const { search, settled, page, size } = usePagedSearch()
  const chosen = ref<ResponseFilter>({ ...ALL_RESPONSES })
  const filter = computed((): ResponseFilter => ({ ...chosen.value, search: settled.value }))
  watch(chosen, () => (page.value = 1))
  const set = (part: Partial<ResponseFilter>) => (chosen.value = { ...chosen.value, ...part })
  const replace = (next: ResponseFilter) => {
    search.value = next.search
    chosen.value = { ...next }
  }
  const isNarrowed = computed(
    () => JSON.stringify({ ...chosen.value, search: '' }) !== JSON.stringify(ALL_RESPONSES),
  )
  const clear = () => (chosen.value = { ...ALL_RESPONSES })
  return { search, filter, set, replace, isNarrowed, clear, page, size }
}
