import type { ShallowRef } from 'vue'

/** The height of a row in pixels. */
export const ROW_HEIGHT = 28
/** Rows drawn beyond the edges of what is in sight. */
const EXTRA = 8

/** Which rows of a long table are near the screen; only those are drawn. */
export function useRowWindow(
  scroller: Readonly<ShallowRef<HTMLElement | null>>,
  view: () => readonly number[],
) {
  const top = ref(0)
  const tall = ref(500)
  const from = computed(() => Math.max(0, Math.floor(top.value / ROW_HEIGHT) - EXTRA))
  const linesOnScreen = computed(() => Math.floor(tall.value / ROW_HEIGHT))
  const shown = computed(() => {
    const most = Math.ceil(tall.value / ROW_HEIGHT) + 2 * EXTRA
    return view().slice(from.value, from.value + most)
  })
  function scrolled() {
    if (!scroller.value) return
    top.value = scroller.value.scrollTop
    tall.value = scroller.value.clientHeight
  }
  onMounted(scrolled)
  /** Scrolls as little as needed for a line to be in sight, below the heads. */
  function scrollToLine(line: number) {
    const element = scroller.value
    if (!element) return
    const y = line * ROW_HEIGHT
    const isBelow = y + ROW_HEIGHT > element.scrollTop + element.clientHeight - ROW_HEIGHT
    if (y < element.scrollTop) element.scrollTop = y
    else if (isBelow) element.scrollTop = y + 2 * ROW_HEIGHT - element.clientHeight
    scrolled()
  }
  function scrollToTop() {
    if (scroller.value) scroller.value.scrollTop = 0
  }
  return { from, shown, linesOnScreen, scrolled, scrollToLine, scrollToTop }
}
