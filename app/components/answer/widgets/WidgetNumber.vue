<script setup lang="ts">
import { numberFromText } from '#core/expressions/decimal'
import { answerOf } from '#core/fill/answers'
import { isRecord, type Answer } from '#core/form/answers'
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

/** A number or an amount as it is typed: a comma counts as the point; what is no number stays as text, and is said. */
const props = defineProps<WidgetProps<'integer' | 'decimal' | 'money'>>()
const emit = defineEmits<WidgetEmits>()
const typed = ref('')
const unit = computed(() => (props.question.type === 'money' ? props.question.currency : props.question.unit))
const amount = computed<Answer>(() => (isRecord(props.value) ? (props.value.amount ?? null) : props.value))

const answerFor = (text: string): Answer => {
  const trimmed = text.trim()
  if (trimmed === '') return null
  const number = numberFromText(trimmed.replaceAll(/[\s\u00a0]/g, '').replace(',', '.'))
  return number === null ? trimmed : answerOf(number)
}
const same = (a: Answer, b: Answer) =>
  a === b ||
  (a !== null &&
    b !== null &&
    numberFromText(String(a)) !== null &&
    numberFromText(String(a)) === numberFromText(String(b)))
watch(
  amount,
  value => {
    if (!same(answerFor(typed.value), value)) typed.value = value === null ? '' : String(value)
  },
  { immediate: true },
)
function type(event: Event) {
  typed.value = inputText(event)
  const answer = answerFor(typed.value)
  emit(
    'answer',
    answer !== null && props.question.type === 'money'
      ? { amount: String(answer), currency: props.question.currency }
      : answer,
  )
}
</script>

<template>
  <v-text-field
    :id="id"
    class="number num"
    :error="invalid"
    :model-value="typed"
    :suffix="unit"
    :inputmode="question.type === 'integer' ? 'numeric' : 'decimal'"
    autocomplete="off"
    maxlength="40"
    :placeholder="question.placeholder"
    v-bind="fieldAttributes(props)"
    @input="type"
    @blur="emit('left')"
  />
</template>

<style scoped>
.number {
  width: 220px;
  max-width: 100%;
}
</style>
