<script setup lang="ts">
import { numberFromText } from '#core/expressions/decimal'
import { answerOf, type Answer } from '#core/fill/answers'

/** A number as it is typed: a comma counts as the point; what is no number stays as text, and is said. */
const props = defineProps<{ id: string, value: Answer, unit?: string, describedby?: string, invalid: boolean, required: boolean }>()
const emit = defineEmits<{ answer: [value: Answer], left: [] }>()
const typed = ref('')

const answerFor = (text: string): Answer => {
  const trimmed = text.trim()
  if (trimmed === '') return null
  const number = numberFromText(trimmed.replace(',', '.'))
  return number === null ? trimmed : answerOf(number)
}
watch(() => props.value, (value) => {
  if (answerFor(typed.value) !== value) typed.value = value === null ? '' : String(value)
}, { immediate: true })
function type(event: Event) {
  if (!(event.target instanceof HTMLInputElement)) return
  typed.value = event.target.value
  emit('answer', answerFor(typed.value))
}
</script>

<template>
  <span class="number-box" :class="{ invalid }">
    <input :id="id" :value="typed" inputmode="decimal" autocomplete="off" maxlength="40" :aria-describedby="describedby" :aria-invalid="invalid || undefined" :aria-required="required || undefined" @input="type" @blur="emit('left')">
    <span v-if="unit" class="quiet" aria-hidden="true">{{ unit }}</span>
  </span>
</template>

<style scoped>
.number-box { display: inline-flex; align-items: center; border: 1px solid var(--control-line); border-radius: 2px; background: var(--paper); padding-right: 12px; width: 220px; max-width: 100%; box-sizing: border-box; }
input { flex: 1; min-width: 0; border: 0; background: none; padding: 10px 14px; min-height: 44px; box-sizing: border-box; }
.invalid { border: 2px solid var(--madder); }
</style>
