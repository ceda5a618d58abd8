import type { Answering } from './useAnswering'

/**
 * Tells the server which section somebody has reached, and how long the one before took: without who they are, and without any answer. Of each
 * filling each section counts once; nothing is told where the form doesn’t count, or of turns and responses under way.
 */
export function useStepCounts(
  token: string,
  isCounted: boolean,
  { pagination, stage, filled, key }: Pick<Answering, 'pagination' | 'stage' | 'filled' | 'key'>,
) {
  /** The sections that were reached, and the last of them with the moment at which it was. */
  let reached = new Set<string>()
  let last: string | null = null
  let since = 0
  const section = computed(() => {
    const at = pagination.page.value?.section
    return at === undefined ? null : (filled.value?.plan.form.sections[at]?.code ?? null)
  })
  function tell(to: string | null) {
    const seconds = Math.round((Date.now() - since) / 1_000)
    const step = JSON.stringify({ from: last, to, seconds: last === null ? 0 : seconds })
    navigator.sendBeacon(`/api/answer/${token}/steps`, new Blob([step], { type: 'application/json' }))
    since = Date.now()
    last = to
  }
  function look() {
    if (stage.value === 'sent') {
      if (last !== null) tell(null)
      return
    }
    const to = section.value
    if (to === null || reached.has(to)) return
    reached.add(to)
    tell(to)
  }
  function begin(isResumed: boolean) {
    reached = new Set(isResumed && section.value !== null ? [section.value] : [])
    last = isResumed ? section.value : null
    since = Date.now()
    look()
  }
  if (!isCounted) return
  const first = section.value
  onMounted(async () => {
    // What was kept on this device is brought back first.
    await nextTick()
    begin(section.value !== first)
    watch([section, stage], look)
    // Another response begins.
    watch(key, () => begin(false))
  })
}
