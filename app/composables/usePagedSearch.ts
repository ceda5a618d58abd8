import { refDebounced } from '@vueuse/core'

/** Milliseconds without a further key after which a table is searched. */
const SETTLE = 250

/** What is searched for in a table that the server pages, and which page is shown; another search begins at the first page. */
export function usePagedSearch() {
  const search = ref('')
  const settled = refDebounced(search, SETTLE)
  const page = ref(1)
  const size = ref(25)
  watch(settled, () => (page.value = 1))
  return { search, settled, page, size }
}
