import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'
import type { Ref } from 'vue'
import type { Address } from '#core/form/walk'

interface Row {
  address: () => Address
  /** Another row is dropped on this one. */
  dropOn: (dragged: Address) => void
}

const isAddress = (value: unknown): value is Address =>
  typeof value === 'string' && /^(?:section|item)\//.test(value)

/** Lets a row be dragged, and others be dropped on it; gives whether one is held over it. */
export function useRowDrag(row: Readonly<Ref<HTMLElement | null>>, { address, dropOn }: Row): Ref<boolean> {
  const over = ref(false)
  onMounted(() => {
    const element = row.value
    if (!element) return
    const stops = [
      draggable({ element, getInitialData: () => ({ address: address() }) }),
      dropTargetForElements({
        element,
        onDragEnter: () => {
          over.value = true
        },
        onDragLeave: () => {
          over.value = false
        },
        onDrop: ({ source }) => {
          over.value = false
          if (isAddress(source.data.address)) dropOn(source.data.address)
        },
      }),
    ]
    onBeforeUnmount(() => stops.forEach(stop => stop()))
  })
  return over
}
