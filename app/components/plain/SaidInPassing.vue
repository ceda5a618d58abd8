<script setup lang="ts">
import { mdiClose } from '@mdi/js'

/** What was said in passing, at the lower edge; gone when the step that it tells of is no longer the last. */
const draft = useDraft()
const { messages, step } = storeToRefs(useSaid())
const queue = useTemplateRef('queue')
const isLast = computed(() => step.value !== null && draft.past.at(-1) === step.value)
watch(isLast, (now, before) => {
  if (before && !now && messages.value.length === 0) queue.value?.clear()
})
function undo(close: () => void) {
  draft.undo()
  close()
}
</script>

<template>
  <!-- Out of the stack of what floats: Escape is for the menu or dialog that is open. -->
  <v-snackbar-queue
    ref="queue"
    v-model="messages"
    display-strategy="overflow"
    _disable-global-stack
  >
    <template #actions="{ props }">
      <v-btn
        v-if="isLast"
        variant="text"
        @click="undo(props.onClick)"
      >
        Take it back
      </v-btn>
      <IconButton
        :icon="mdiClose"
        name="Hide this message"
        v-bind="props"
      />
    </template>
  </v-snackbar-queue>
</template>
