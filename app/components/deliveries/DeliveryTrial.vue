<script setup lang="ts">
import type { Delivery } from '#core/form/deliveries'
import { addressesOf, copyOfAnswers, deliveredText, holds, jsonFromTemplate } from '#core/parties/deliveries'

/** What would be done with the practice answers of the rehearsal, as they are now. */
const props = defineProps<{ delivery: Delivery }>()
const rehearsal = useRehearsal()
const filled = computed(() => rehearsal.filled)
const isDone = computed(() => filled.value !== null && holds(filled.value, props.delivery))
const to = computed(() => {
  const { act } = props.delivery
  if (!filled.value || !('to' in act)) return ''
  if ('team' in act.to) return `the people of “${act.to.team}”`
  return addressesOf(filled.value, act.to, new Map()).join(', ') || 'nobody: no address is given'
})
const words = computed(() => {
  const { act } = props.delivery
  if (!filled.value) return { subject: '', text: '' }
  if (act.do === 'message') {
    const text = deliveredText(filled.value, act.text)
    return {
      subject: deliveredText(filled.value, act.subject),
      text: act.copy ? `${text}\n\n${copyOfAnswers(filled.value)}` : text,
    }
  }
  if (act.do === 'nextForm') return { subject: '', text: deliveredText(filled.value, act.text) }
  if (act.do === 'hook' && act.body !== undefined)
    return { subject: act.address, text: jsonFromTemplate(filled.value, act.body) }
  return { subject: '', text: '' }
})
</script>

<template>
  <div
    class="trial"
    role="group"
    aria-label="With the practice answers"
  >
    <p class="small">
      With the practice answers:
      <strong :class="isDone ? 'proven' : 'risk'">{{
        isDone ? 'it is done' : 'it is not done'
      }}</strong><template v-if="to">, to {{ to }}</template>
    </p>
    <p
      v-if="words.subject"
      class="small"
    >
      <strong>{{ words.subject }}</strong>
    </p>
    <p
      v-if="words.text"
      class="small text"
    >
      {{ words.text }}
    </p>
  </div>
</template>

<style scoped>
.trial {
  background: var(--linen);
  padding: 8px 12px;
  display: grid;
  gap: 4px;
}
.text {
  white-space: pre-line;
  max-height: 180px;
  overflow-y: auto;
}
</style>
