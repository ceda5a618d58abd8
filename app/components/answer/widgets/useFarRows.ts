import { useDebounceFn } from '@vueuse/core'
import type { OfferedRow } from '#core/form/rows'
import { ROW_FINDER } from '../keys'
import { rowCount, type WidgetProps } from './widget'

/** How long after a letter a list is searched, in milliseconds. */
const PAUSE = 120

/** The rows of a long list, searched where it is kept: the newest search counts, older answers that come late are left aside. */
export function useFarRows(
  props: Pick<WidgetProps, 'id' | 'step' | 'frame'>,
  typed: Readonly<Ref<string>>,
  open: Readonly<Ref<boolean>>,
) {
  const finder = inject(ROW_FINDER, null)
  const isFar = computed(
    () => finder !== null && rowCount(props.step, props.frame) > (props.step.offer?.rows.size ?? 0),
  )
  const far = shallowRef<{ rows: OfferedRow[]; count: number } | null>(null)
  const failed = ref(false)
  const path = computed(() => props.id.replace(/^[^-]*-/, '').replaceAll(/-(\d+)-/g, '[$1].'))
  let asking = 0
  async function ask() {
    if (!isFar.value || !open.value) return
    const own = (asking += 1)
    try {
      const found = (await finder?.find(path.value, typed.value)) ?? null
      if (own !== asking) return
      far.value = found
      failed.value = false
    } catch {
      // Said in the list; typing on asks again.
      if (own === asking) failed.value = true
    }
  }
  const later = useDebounceFn(ask, PAUSE)
  watch(open, ask)
  watch(typed, later)
  return { far, failed, isFar }
}
