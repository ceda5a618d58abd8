<script setup lang="ts">
import { isRecord } from '#core/form/answers'
import { offeredNow } from '#core/fill/fill'
import { writeInLabel } from '#core/form/types'
import { WRITE_IN } from '#core/form/rows'
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

const props = defineProps<WidgetProps<'choice'>>()
const emit = defineEmits<WidgetEmits>()
const rows = computed(() => {
  const offered = offeredNow(props.frame, props.step)
  return [...(props.step.offer?.rows.values() ?? [])].filter(r => offered === null || offered.has(r.code))
})
const written = computed(() => (isRecord(props.value) ? String(props.value[WRITE_IN] ?? '') : null))
const selected = computed(() => {
  if (written.value !== null) return WRITE_IN
  return typeof props.value === 'string' ? props.value : ''
})
function choose(event: Event) {
  const code = inputText(event)
  const isOwnWords = code === WRITE_IN && props.question.writeIn
  if (code === '') emit('answer', null)
  else emit('answer', isOwnWords ? { [WRITE_IN]: '' } : code)
}
</script>

<template>
  <div>
    <select
      :id="id"
      class="box"
      :class="{ invalid }"
      :value="selected"
      v-bind="fieldAttributes(props)"
      @change="choose"
      @blur="emit('left')"
    >
      <option value="">{{ question.placeholder || 'Choose …' }}</option>
      <option
        v-for="r in rows"
        :key="r.code"
        :value="r.code"
      >
        {{ r.label }}
      </option>
      <option
        v-if="question.writeIn"
        :value="WRITE_IN"
      >
        {{ writeInLabel(question) }}
      </option>
    </select>
    <input
      v-if="written !== null"
      class="box written"
      :value="written"
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
