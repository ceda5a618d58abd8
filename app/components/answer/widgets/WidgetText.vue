<script setup lang="ts">
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

/** One line of text, with the keyboard and the memory of the device that fit its type. */
const props = defineProps<WidgetProps<'text' | 'email' | 'phone' | 'url'>>()
const emit = defineEmits<WidgetEmits>()
const KINDS = {
  text: { type: 'text', inputmode: undefined, autocomplete: 'off' },
  email: { type: 'email', inputmode: 'email', autocomplete: 'email' },
  phone: { type: 'tel', inputmode: 'tel', autocomplete: 'tel' },
  url: { type: 'url', inputmode: 'url', autocomplete: 'url' },
} as const
const kind = computed(() => KINDS[props.question.type])
/** What the browser may fill in of what it knows. */
const autocomplete = computed(() =>
  'autofill' in props.question && props.question.autofill ? props.question.autofill : kind.value.autocomplete,
)
</script>

<template>
  <v-text-field
    :id="id"
    :error="invalid"
    :type="kind.type"
    :inputmode="kind.inputmode"
    :autocomplete="autocomplete"
    :model-value="typeof value === 'string' ? value : ''"
    :placeholder="question.placeholder"
    v-bind="fieldAttributes(props)"
    @input="emit('answer', inputText($event) || null)"
    @blur="emit('left')"
  />
</template>
