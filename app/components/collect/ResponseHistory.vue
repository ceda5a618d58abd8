<script setup lang="ts">
import type { ResponseDetails } from '#shared/api/responses'

/** What happened to a response, the oldest first: who, when, what was changed, and what was posted. Only to be read. */
const props = defineProps<{ history: ResponseDetails['history'] }>()
const letters = computed(() => props.history.filter(h => h.kind === 'posted').length)
const happened = computed(() => props.history.length - letters.value)
/** Letters that reached nobody: told before anybody unfolds it. */
const bounced = computed(() => props.history.filter(h => h.letter === 'bounced').length)
const title = computed(() => {
  const counts = `History: ${counted(happened.value, 'step')}, ${counted(letters.value, 'letter')}`
  return bounced.value > 0 ? `${counts}, ${bounced.value} came back` : counts
})
</script>

<template>
  <FoldedPart
    v-if="history.length > 0"
    :title="title"
  >
    <HistoryLines :history="history" />
  </FoldedPart>
</template>
