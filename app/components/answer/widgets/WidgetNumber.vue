<script setup lang="ts">
import { numberFromText } from '#core/expressions/decimal'
import { answerOf } from '#core/fill/answers'
import { readableNumber } from '#core/fill/describeValue'
import { readTypedNumber } from '#core/fill/typedNumber'
import { isRecord, type Answer } from '#core/form/answers'
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

/** A number or an amount as it is typed, read by the form’s language; what is no number stays as text, and is said. */
const props = defineProps<WidgetProps<'integer' | 'decimal' | 'money'>>()
const emit = defineEmits<WidgetEmits>()
const typed = ref('')
const unit = computed(() => (props.question.type === 'money' ? props.question.currency : props.question.unit))
const amount = computed<Answer>(() => (isRecord(props.value) ? (props.value.amount ?? null) : props.value))

const PLACES = { integer: 0, money: 2 } as const
const writing = computed(() => ({
  language: props.frame.plan.form.language ?? 'en',
  unit: unit.value,
  places: props.question.type === 'decimal' ? props.question.decimals : PLACES[props.question.type],
}))
const answerFor = (text: string): Answer => {
  const trimmed = text.trim()
  if (trimmed === '') return null
  const read = readTypedNumber(trimmed, writing.value)
  return read.is === 'number' ? answerOf(read.number) : trimmed
}
/** What was made of what was typed, where that is not plain. */
const understood = computed(() => {
  const read = readTypedNumber(typed.value, writing.value)
  if (read.is !== 'number' || read.isPlain) return ''
  const places = props.question.type === 'money' ? 2 : undefined
  return `Understood as ${readableNumber(read.number, places)}${unit.value ? `\u00a0${unit.value}` : ''}`
})
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
  <div>
    <v-text-field
      :id="id"
      class="number num"
      :error="invalid"
      :model-value="typed"
      :suffix="unit"
      persistent-placeholder
      :inputmode="question.type === 'integer' ? 'numeric' : 'decimal'"
      autocomplete="off"
      maxlength="40"
      :placeholder="question.placeholder"
      v-bind="fieldAttributes(props)"
      @input="type"
      @blur="emit('left')"
    />
    <p
      class="small quiet understood"
      role="status"
    >
      {{ understood }}
    </p>
  </div>
</template>

<style scoped>
.understood {
  margin-top: 4px;
}
.understood:empty {
  display: none;
}
.number {
  width: 220px;
  max-width: 100%;
}
</style>
