<script setup lang="ts">
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

/** A date, a time or both: typed part by part, or taken from the picker of the device. */
const props = defineProps<WidgetProps<'date' | 'time' | 'dateTime'>>()
const emit = defineEmits<WidgetEmits>()
const KINDS = { date: 'date', time: 'time', dateTime: 'datetime-local' } as const
const shown = computed(() => {
  if (typeof props.value !== 'string') return ''
  return props.question.type === 'date' ? props.value : props.value.replace(/(\d\d:\d\d):00$/, '$1')
})
/** A date of which only a part is typed has no text yet; the browser says so, and an answer that stood before is gone. */
function leave(event: FocusEvent) {
  if (event.target instanceof HTMLInputElement && event.target.validity.badInput) emit('answer', 'unfinished')
  emit('left')
}
</script>

<template>
  <v-text-field
    :id="id"
    :class="question.type"
    :error="invalid"
    :type="KINDS[question.type]"
    :min="question.min"
    :max="question.max"
    :model-value="shown"
    v-bind="fieldAttributes(props)"
    @input="emit('answer', inputText($event) || null)"
    @blur="leave"
  />
</template>

<style scoped>
.v-text-field {
  width: 220px;
  max-width: 100%;
}
.time {
  width: 150px;
}
.dateTime {
  width: 260px;
}
</style>
