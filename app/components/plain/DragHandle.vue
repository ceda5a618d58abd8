<script setup lang="ts">
import { mdiDragVertical } from '@mdi/js'
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'

/** What something in a row of things is moved by: dragged, or by the arrow keys. What moves is the element around it marked `data-moves`. */
const props = defineProps<{
  name: string
  /** Where it stands among the others, from 0. */
  at: number
  /** What things it may change places with. */
  among: string
}>()
const emit = defineEmits<{ move: [from: number, to: number] }>()
const handle = useTemplateRef('handle')
const mark = `tobbin-${props.among}`

onMounted(() => {
  const dragHandle = handle.value?.$el
  const element = dragHandle instanceof Element ? dragHandle.closest('[data-moves]') : null
  if (!(element instanceof HTMLElement) || !(dragHandle instanceof Element)) return
  const stops = [
    draggable({ element, dragHandle, getInitialData: () => ({ [mark]: props.at }) }),
    dropTargetForElements({
      element,
      canDrop: ({ source }) => typeof source.data[mark] === 'number',
      onDragEnter: () => element.classList.add('dropped-on'),
      onDragLeave: () => element.classList.remove('dropped-on'),
      onDrop: ({ source }) => {
        element.classList.remove('dropped-on')
        const from = source.data[mark]
        if (typeof from === 'number' && from !== props.at) emit('move', from, props.at)
      },
    }),
  ]
  onBeforeUnmount(() => stops.forEach(stop => stop()))
})
</script>

<template>
  <IconButton
    ref="handle"
    class="handle"
    :icon="mdiDragVertical"
    :name="name"
    keys="↑ ↓"
    @keydown.up.prevent.stop="emit('move', at, at - 1)"
    @keydown.down.prevent.stop="emit('move', at, at + 1)"
  />
</template>

<style scoped>
.handle {
  cursor: grab;
}
</style>
