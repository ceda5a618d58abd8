<script setup lang="ts">
import { isRecord } from '#core/form/answers'
import { offeredNow } from '#core/fill/fill'
import { writeInLabel } from '#core/form/types'
import { WRITE_IN } from '#core/form/rows'
import { fieldAttributes, withPlaces, type WidgetEmits, type WidgetProps } from './widget'

const props = defineProps<WidgetProps<'choice'>>()
const emit = defineEmits<WidgetEmits>()
const rows = computed(() => {
  const offered = offeredNow(props.frame, props.step)
  return [...(props.step.offer?.rows.values() ?? [])].filter(r => offered === null || offered.has(r.code))
})
const written = computed(() => (isRecord(props.value) ? String(props.value[WRITE_IN] ?? '') : null))
const selected = computed(() => {
  if (written.value !== null) return WRITE_IN
  return typeof props.value === 'string' ? props.value : null
})
function choose(code: string | null) {
  const isOwnWords = code === WRITE_IN && props.question.writeIn
  if (!code) emit('answer', null)
  else emit('answer', isOwnWords ? { [WRITE_IN]: '' } : code)
}
</script>

<template>
  <div>
    <v-select
      :id="id"
      :error="invalid"
      :model-value="selected"
      :placeholder="question.placeholder || 'Choose …'"
      clearable
      v-bind="fieldAttributes(props)"
      :items="[
        ...rows.map(r => ({ value: r.code, title: withPlaces(r) })),
        ...(question.writeIn ? [{ value: WRITE_IN, title: writeInLabel(question) }] : []),
      ]"
      @update:model-value="choose"
      @blur="emit('left')"
    />
    <v-text-field
      v-if="written !== null"
      class="written"
      :model-value="written"
      maxlength="500"
      :aria-label="`${writeInLabel(question)}: your own words`"
      @input="emit('answer', { [WRITE_IN]: inputText($event) })"
      @blur="emit('left')"
    />
  </div>
</template>

<style scoped>
.written {
  margin-top: 6px;
}
</style>
