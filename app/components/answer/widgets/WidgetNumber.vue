<script setup lang="ts">
import { numberFromText } from '#core/expressions/decimal'
import { answerOf } from '#core/fill/answers'
import { readableNumber } from '#core/fill/describeValue'
import { readTypedNumber } from '#core/fill/typedNumber'
import { isRecord, type Answer } from '#core/form/answers'
import { currenciesOf } from '#core/form/currencies'
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

/** A number or an amount as it is typed, read by the form’s language; what is no number stays as text, and is said. */
const props = defineProps<WidgetProps<'integer' | 'decimal' | 'money'>>()
const emit = defineEmits<WidgetEmits>()
const typed = ref('')
const currencies = computed(() => (props.question.type === 'money' ? currenciesOf(props.question) : []))
/** The currency that was chosen, before an amount is there to say it. */
const chosen = ref<string>()
const currency = computed(() => {
  const given = isRecord(props.value) ? props.value.currency : undefined
  return currencies.value.find(c => c === (chosen.value ?? given)) ?? currencies.value[0]
})
const unit = computed(() => (props.question.type === 'money' ? currency.value : props.question.unit))
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
  answerTyped()
}
function answerTyped() {
  const answer = answerFor(typed.value)
  const isAmount = answer !== null && currency.value !== undefined
  emit('answer', isAmount ? { amount: String(answer), currency: currency.value ?? '' } : answer)
}
/** Another currency for the same amount. */
function choose(code: string | undefined) {
  chosen.value = code
  if (typed.value.trim() !== '') answerTyped()
}
</script>

<template>
  <div>
    <div class="amount">
      <v-text-field
        :id="id"
        class="number num"
        :error="invalid"
        :model-value="typed"
        :suffix="currencies.length > 1 ? undefined : unit"
        persistent-placeholder
        :inputmode="question.type === 'integer' ? 'numeric' : 'decimal'"
        autocomplete="off"
        maxlength="40"
        :placeholder="question.placeholder"
        v-bind="fieldAttributes(props)"
        @input="type"
        @blur="emit('left')"
      />
      <LazyCurrencyChoice
        v-if="currencies.length > 1"
        :model-value="currency"
        :currencies="currencies"
        :name="`${question.label}: currency`"
        @update:model-value="choose"
        @left="emit('left')"
      />
    </div>
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
.amount {
  display: flex;
  gap: 8px;
  max-width: 100%;
}
.number {
  flex: 0 1 220px;
}
</style>
