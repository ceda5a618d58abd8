import type { Ref } from 'vue'
import { problemsIn, type Filled } from '#core/fill/fill'
import { isSettled, pagesOf, shownOn, type Page } from '#core/fill/pages'
import { quotedText } from '#core/fill/quote'

/** The way through a form page by page: where somebody stands, what comes next, and whether the page can be left. */
export function useWay(filled: Ref<Filled | null>, place: Ref<Page>) {
  const tried = ref(false)
  const pages = computed(() => (filled.value ? pagesOf(filled.value) : []))
  const isUpTo = (p: Page) =>
    p.section < place.value.section ||
    (p.section === place.value.section && (p.only === null || p.only <= (place.value.only ?? 0)))
  /** The page that was chosen while it is on the way, else the last before it. */
  const at = computed(() => {
    // A section without a question named means its first page.
    const exact = pages.value.findIndex(
      p => p.section === place.value.section && (place.value.only === null || p.only === place.value.only),
    )
    return exact >= 0 ? exact : Math.max(0, pages.value.findLastIndex(isUpTo))
  })
  const page = computed(() => pages.value[at.value])
  const next = computed(() => pages.value[at.value + 1])
  const problems = computed(() => {
    const section = page.value && filled.value?.plan.sections[page.value.section]
    if (!section || !filled.value || !page.value) return []
    const only = shownOn(filled.value, page.value)
    const isLast = next.value?.section !== page.value.section
    return problemsIn(filled.value, section).filter(
      p =>
        only === null ||
        only.has(p.step.place.order) ||
        p.step.place.groups.some(g => only.has(g.order)) ||
        (isLast && p.step.place.kind === 'section'),
    )
  })
  const titleOf = (p: Page | undefined) => {
    const section = p && filled.value?.plan.sections[p.section]
    return section && filled.value ? quotedText(filled.value, section.place.node.title, section.place) : ''
  }
  const nextWords = computed(() =>
    next.value === undefined
      ? 'Check your answers'
      : next.value.only === null
        ? `Next: ${titleOf(next.value)}`
        : 'Next',
  )
  const progress = computed(() => {
    const words = page.value?.only === null || page.value === undefined ? 'Part' : 'Question'
    const settled = filled.value ? isSettled(filled.value, pages.value, at.value) : true
    return `${words} ${at.value + 1} of ${settled ? '' : 'about '}${pages.value.length}`
  })
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
  return { tried, pages, at, page, next, problems, nextWords, progress, goOn, goBack, titleOf }
}
