<script setup lang="ts">
import { isRecord } from '#core/form/answers'
import { offeredNow } from '#core/fill/fill'
import { writeInLabel } from '#core/form/types'
import { WRITE_IN } from '#core/form/rows'
import { fieldAttributes, textOf, type WidgetEmits, type WidgetProps } from './widget'

const props = defineProps<WidgetProps<'choice'>>()
const emit = defineEmits<WidgetEmits>()
const rows = computed(() => {
  const offered = offeredNow(props.frame, props.step)
  return [...(props.step.offer?.rows.values() ?? [])].filter(r => offered === null || offered.has(r.code))
})
const written = computed(() => (isRecord(props.value) ? String(props.value[WRITE_IN] ?? '') : null))
function choose(event: Event) {
  const code = textOf(event)
  emit('answer', code === '' ? null : code === WRITE_IN && props.question.writeIn ? { [WRITE_IN]: '' } : code)
}
</script>

<template>
  <div>
    <select
      :id="id"
      class="box"
      :class="{ invalid }"
      :value="written === null ? (typeof value === 'string' ? value : '') : WRITE_IN"
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
      @input="emit('answer', { [WRITE_IN]: textOf($event) })"
      @blur="emit('left')"
    />
  </div>
</template>

<style scoped>
.written {
  margin-top: 6px;
}
</style>
