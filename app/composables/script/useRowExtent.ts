import type { ShallowRef } from 'vue'
import type { Address } from '#core/form/walk'

/** Up to so many rows are all drawn. */
const WHOLE = 150
/** The height of a row that was never drawn, and what is drawn beyond the edges of the screen, in pixels. */
const GUESS = 34
const MARGIN = 300

/** Of a long script only what is near the screen is drawn; the heights of the rest are remembered, or guessed. */
export function useRowExtent(list: Readonly<ShallowRef<HTMLElement | null>>) {
  const draft = useDraft()
  const folds = useFolded()
  const shown = computed(() => folds.visible(draft.places))
  /** The same list as long as no line came, went or moved. */
  const lines = computed(() => folds.visible(draft.threaded))
  const top = ref(0)
  const tall = ref(800)
  const { heights, measured, observe } = useRowHeights(list)
  /** Where each row begins, and behind them the end of the last. */
  const begins = computed(() => {
    void measured.value
    const at = new Float64Array(lines.value.length + 1)
    lines.value.forEach((p, i) => {
      at[i + 1] = (at[i] ?? 0) + (heights.get(p.address) ?? GUESS)
    })
    return at
  })
  const extent = computed(() => {
    const { length } = shown.value
    if (length <= WHOLE) return { from: 0, to: length, before: 0, after: 0 }
    const from = rowAt(begins.value, length, top.value - MARGIN)
    const to = Math.min(length, rowAt(begins.value, length, top.value + tall.value + MARGIN) + 1)
    const before = begins.value[from] ?? 0
    const after = (begins.value[length] ?? 0) - (begins.value[to] ?? 0)
    return { from, to, before, after }
  })
  const rows = computed(() => shown.value.slice(extent.value.from, extent.value.to))
  const observeLong = () => {
    if (shown.value.length > WHOLE) observe()
  }
  watch(rows, () => void nextTick(observeLong), { flush: 'post' })
  onMounted(observeLong)

  let scrolling = 0
  function scrolled() {
    cancelAnimationFrame(scrolling)
    scrolling = requestAnimationFrame(() => {
      if (list.value) [top.value, tall.value] = [list.value.scrollTop, list.value.clientHeight]
    })
  }
  /** Brings a row onto the screen, drawn or not yet. */
  function reveal(address: Address) {
    const line = list.value?.querySelector(`[data-address="${CSS.escape(address)}"]`)
    if (line || !list.value) return line?.scrollIntoView({ block: 'nearest' })
    const index = shown.value.findIndex(p => p.address === address)
    if (index < 0) return
    list.value.scrollTop = Math.max(0, (begins.value[index] ?? 0) - tall.value / 3)
    top.value = list.value.scrollTop
  }
  return { extent, rows, scrolled, reveal }
}

/** The row that a height falls into, by bisection. */
function rowAt(begins: Float64Array, length: number, height: number): number {
  let [low, high] = [0, length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((begins[middle + 1] ?? Infinity) < height) low = middle + 1
    else high = middle
  }
  return low
}

/** Heights of the rows that are drawn, taken where the browser has them at hand, so that reading them never makes it lay out anew. */
function useRowHeights(list: Readonly<ShallowRef<HTMLElement | null>>) {
  const draft = useDraft()
  const heights = new Map<Address, number>()
  /** Grows when a height becomes known. */
  const measured = ref(0)
  let sizes: ResizeObserver | null = null
  const observed = new Set<Element>()

  /** Takes a height; whether it was not known before. */
  function take({ target, contentRect }: ResizeObserverEntry): boolean {
    const address = target.querySelector('[data-address]')?.getAttribute('data-address')
    const place = draft.places.find(p => p.address === address)
    if (!place || contentRect.height === 0) return false
    if (heights.get(place.address) === contentRect.height) return false
    heights.set(place.address, contentRect.height)
    return true
  }
  onMounted(() => {
    sizes = new ResizeObserver(entries => {
      const news = entries.filter(take)
      if (news.length > 0) measured.value += 1
    })
  })
  onBeforeUnmount(() => sizes?.disconnect())
  function observe() {
    if (!sizes || !list.value) return
    const lines = new Set(list.value.querySelectorAll('.line'))
    for (const line of observed) {
      if (lines.has(line)) continue
      sizes.unobserve(line)
      observed.delete(line)
    }
    for (const line of lines) {
      if (observed.has(line)) continue
      sizes.observe(line)
      observed.add(line)
    }
  }
  return { heights, measured, observe }
}
