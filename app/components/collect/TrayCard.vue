<script setup lang="ts">
import { draggable } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'

/** A response in a tray: opened by a press, moved by dragging or by the arrow keys. */
const props = defineProps<{
  row: { id: string; number: number; sentAt: string; facts: readonly string[] }
  tray: string | null
  isMoved: boolean
}>()
const emit = defineEmits<{ open: []; shift: [by: 1 | -1]; focused: [] }>()
const card = useTemplateRef('card')
onMounted(() => {
  const element: unknown = card.value?.$el
  if (!(element instanceof HTMLElement)) return
  const stop = draggable({
    element,
    getInitialData: () => ({ response: props.row.id, from: props.tray }),
  })
  onBeforeUnmount(stop)
  if (!props.isMoved) return
  element.focus()
  emit('focused')
})
</script>

<template>
  <v-btn
    ref="card"
    variant="outlined"
    class="card"
    @click="emit('open')"
    @keydown.left.prevent.stop="emit('shift', -1)"
    @keydown.right.prevent.stop="emit('shift', 1)"
  >
    <span class="small quiet">No. {{ row.number }}, {{ readableDay(row.sentAt) }}</span>
    <span
      v-for="(f, i) in row.facts"
      :key="i"
      class="fact"
      :class="{ first: i === 0 }"
      >{{ f }}</span
    >
  </v-btn>
</template>

<style scoped>
.card {
  background: var(--paper);
  padding: 6px 8px;
  height: auto;
  cursor: grab;
  display: block;
  text-align: left;
}
.card :deep(.v-btn__content) {
  display: grid;
  justify-items: start;
  justify-content: start;
  gap: 1px;
  width: 100%;
}
.fact {
  font-size: 13px;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.fact.first {
  font-weight: 600;
}
</style>
