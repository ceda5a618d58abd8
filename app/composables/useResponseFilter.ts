import type { ResponseFilter } from '#shared/api/responses'

const ALL: ResponseFilter = { search: '', where: '', state: '', release: 0, since: '', until: '' }

/** Which responses of a form are looked at; another filter begins at the first page. */
export function useResponseFilter() {
  const { search, settled, page, size } = usePagedSearch()
  const chosen = ref<ResponseFilter>({ ...ALL })
  const filter = computed((): ResponseFilter => ({ ...chosen.value, search: settled.value }))
  watch(chosen, () => (page.value = 1))
  const set = (part: Partial<ResponseFilter>) => (chosen.value = { ...chosen.value, ...part })
  const isNarrowed = computed(() => JSON.stringify(chosen.value) !== JSON.stringify(ALL))
  const clear = () => (chosen.value = { ...ALL })
  return { search, filter, set, isNarrowed, clear, page, size }
}
