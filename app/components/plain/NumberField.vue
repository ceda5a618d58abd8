<script setup lang="ts">
/** A number of the design; a comma is read as the point. `whole`: without digits behind it. */
const value = defineModel<number | null>({ required: true })
defineProps<{ whole?: boolean; min?: number }>()
function readComma(event: Event) {
  const { target } = event
  const typed = event instanceof InputEvent ? event.data : null
  if (!typed?.includes(',') || !(target instanceof HTMLInputElement)) return
  event.preventDefault()
  event.stopPropagation()
  const { selectionStart, selectionEnd } = target
  target.setRangeText(typed.replaceAll(',', '.'), selectionStart ?? 0, selectionEnd ?? 0, 'end')
  target.dispatchEvent(new Event('input', { bubbles: true }))
}
</script>

<template>
  <span
    class="number"
    @beforeinput.capture="readComma"
  >
    <v-number-input
      v-model="value"
      :precision="whole ? 0 : null"
      :min="min"
    />
  </span>
</template>

<style scoped>
.number {
  display: block;
  width: 64px;
  color: var(--ink);
}
</style>
