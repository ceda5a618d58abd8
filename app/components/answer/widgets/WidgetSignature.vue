<script setup lang="ts">
import { isRecord } from '#core/form/answers'
import DrawnField from './DrawnField.vue'
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

/** A signature, typed or drawn. */
const props = defineProps<WidgetProps<'signature'>>()
const emit = defineEmits<WidgetEmits>()
const given = computed(() => (isRecord(props.value) ? props.value : {}))
const typed = computed(() => (typeof given.value.typed === 'string' ? given.value.typed : ''))
const drawn = computed(() => (typeof given.value.drawn === 'string' ? given.value.drawn : ''))
const mode = ref<'type' | 'draw'>(drawn.value ? 'draw' : 'type')
const MODES = [
  { value: 'type', title: 'Type your name' },
  { value: 'draw', title: 'Draw' },
] as const
</script>

<template>
  <div class="signature">
    <SegmentedChoice
      v-model="mode"
      class="modes"
      :options="MODES"
      name="How to sign"
    />
    <v-text-field
      v-if="mode === 'type'"
      :id="id"
      class="written"
      :error="invalid"
      :model-value="typed"
      maxlength="200"
      autocomplete="name"
      :aria-labelledby="labelledby"
      v-bind="fieldAttributes(props)"
      @input="emit('answer', inputText($event) ? { typed: inputText($event) } : null)"
      @blur="emit('left')"
    />
    <DrawnField
      v-else
      :id="id"
      :drawn="drawn"
      :invalid="invalid"
      @draw="path => emit('answer', path === null ? null : { drawn: path })"
    />
  </div>
</template>

<style scoped>
.signature {
  display: grid;
  gap: 8px;
}
.modes {
  justify-self: start;
}
.written {
  font-style: italic;
  font-size: 19px;
}
</style>
