<script setup lang="ts">
import type { Group } from '#core/form/definition'

/** Whether a group repeats, how often, and what its entries and its button are called. */
const props = defineProps<{ group: Group }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>, merge?: string | null] }>()
function setRepeat(key: 'min' | 'max' | 'heading' | 'add', value: string | number | null) {
  const { [key]: _before, ...rest } = props.group.repeat ?? {}
  const isBlank = value === null || (typeof value === 'string' && value.trim() === '')
  emit('set', { repeat: isBlank ? rest : { ...rest, [key]: value } }, `repeat-${key}`)
}
</script>

<template>
  <div class="row-flex">
    <label class="small"
      ><v-checkbox-btn
        :model-value="group.repeat !== undefined"
        @change="emit('set', { repeat: group.repeat ? null : {} })"
      />
      in entries</label
    >
    <template v-if="group.repeat">
      <label class="small quiet"
        >least
        <NumberField
          whole
          :min="0"
          :model-value="group.repeat.min ?? null"
          @update:model-value="setRepeat('min', $event)"
      /></label>
      <label class="small quiet"
        >most
        <NumberField
          whole
          :min="0"
          :model-value="group.repeat.max ?? null"
          @update:model-value="setRepeat('max', $event)"
      /></label>
      <label class="small quiet"
        >heading
        <v-text-field
          :model-value="group.repeat.heading ?? ''"
          placeholder="may quote: {{ code }}"
          @change="setRepeat('heading', inputText($event))"
      /></label>
      <label class="small quiet"
        >button
        <v-text-field
          :model-value="group.repeat.add ?? ''"
          placeholder="Add an engine"
          @change="setRepeat('add', inputText($event))"
      /></label>
    </template>
  </div>
</template>
