<script setup lang="ts">
import { describeValue } from '#core/fill/describeValue'
import type { WidgetEmits, WidgetProps } from './widget'

/** A calculated value, or an answer that can't be changed here: shown, and said anew when it changes. */
const props = defineProps<WidgetProps>()
defineEmits<WidgetEmits>()
const told = computed(() =>
  describeValue(
    props.frame.values[props.step.slot] ?? null,
    props.question,
    props.frame.plan.form,
    props.frame.given.get(props.step.slot),
  ),
)
</script>

<template>
  <output
    :id="id"
    class="told"
    aria-live="polite"
    :aria-labelledby="labelledby"
    >{{ told || '–' }}</output
  >
</template>

<style scoped>
.told {
  display: block;
  font-weight: 600;
  font-size: 17px;
  font-variant-numeric: tabular-nums;
  padding: 6px 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
