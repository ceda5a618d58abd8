import { useVirtualizer } from '@tanstack/vue-virtual'
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
  const virtualizer = useVirtualizer(
    computed(() => ({
      count: view().length,
      getScrollElement: () => scroller.value,
      estimateSize: () => ROW_HEIGHT,
      overscan: EXTRA,
      // The heads stay in sight above the rows.
      scrollPaddingEnd: ROW_HEIGHT,
    })),
  )
  const lines = computed(() => virtualizer.value.getVirtualItems())
  const from = computed(() => lines.value[0]?.index ?? 0)
  const linesOnScreen = computed(() => Math.floor((virtualizer.value.scrollRect?.height ?? 0) / ROW_HEIGHT))
  const shown = computed(() => view().slice(from.value, from.value + lines.value.length))
  /** The cell to be focused is not drawn yet: its line comes into sight with the next scrolling. */
  const isAwaited = ref(false)
  function focusHere() {
    const cell = scroller.value?.querySelector<HTMLElement>('[data-here]')
    cell?.focus({ preventScroll: true })
    isAwaited.value = !cell
  }
  watch(
    shown,
    () => {
      if (isAwaited.value) focusHere()
    },
    { flush: 'post' },
  )
  /** Scrolls as little as needed for a line to be in sight below the heads, and gives its cell the focus. */
  function revealLine(line: number) {
    virtualizer.value.scrollToIndex(line, { align: 'auto' })
    void nextTick(focusHere)
  }
  const scrollToTop = () => virtualizer.value.scrollToOffset(0)
  return { from, shown, linesOnScreen, revealLine, scrollToTop }
}
