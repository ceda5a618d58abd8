import type { Ref } from 'vue'
import type { Filled } from '#core/fill/fill'
import { pagesOf, problemsOnPage, type Page } from '#core/fill/pages'
import { nextPageText, progressText } from '#core/fill/progressText'

/** The way through a form page by page: where somebody stands, what comes next, and whether the page can be left. */
export function usePagination(filled: Ref<Filled | null>, place: Ref<Page>) {
  /** Somebody has tried to leave the page while something kept it. */
  const tried = ref(false)
  const pages = computed(() => (filled.value ? pagesOf(filled.value) : []))
  const at = computed(() => indexOfPage(pages.value, place.value))
  const page = computed(() => pages.value[at.value])
  const next = computed(() => pages.value[at.value + 1])
  const problems = computed(() =>
    filled.value && page.value ? problemsOnPage(filled.value, page.value) : [],
  )
  const nextText = computed(() => (filled.value ? nextPageText(filled.value, next.value) : ''))
  const progress = computed(() => (filled.value ? progressText(filled.value, pages.value, at.value) : ''))
  /** Goes to the next page if this one is complete: `next`, `end` after the last, `stay` with errors. */
  function goOn(): 'next' | 'end' | 'stay' {
    tried.value = problems.value.length > 0
    if (tried.value) return 'stay'
    if (!next.value) return 'end'
    place.value = next.value
    return 'next'
  }
  function goBack() {
    tried.value = false
    place.value = pages.value[at.value - 1] ?? place.value
  }
  return { tried, pages, at, page, next, problems, nextText, progress, goOn, goBack }
}

/** The page that was chosen while it is on the way, else the last before it. A section without a question named means its first page. */
function indexOfPage(pages: readonly Page[], { section, only }: Page): number {
  const exact = pages.findIndex(p => p.section === section && (only === null || p.only === only))
  if (exact >= 0) return exact
  const isUpTo = (p: Page) =>
    p.section < section || (p.section === section && (p.only === null || p.only <= (only ?? 0)))
  return Math.max(0, pages.findLastIndex(isUpTo))
}
