<script setup lang="ts">
import type { Group } from '#core/form/definition'

/** Whether a group repeats, how often, and what its entries and its button are called. */
const props = defineProps<{ group: Group }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>, merge?: string | null] }>()
function setRepeat(key: 'min' | 'max' | 'heading' | 'add', text: string) {
  const { [key]: _before, ...rest } = props.group.repeat ?? {}
  const merge = `repeat-${key}`
  if (text.trim() === '') return emit('set', { repeat: rest }, merge)
  const value = key === 'min' || key === 'max' ? Number(text) : text
  const isUsable = typeof value === 'string' || Number.isInteger(value)
  if (isUsable) emit('set', { repeat: { ...rest, [key]: value } }, merge)
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
        <v-text-field
          class="number"
          :model-value="group.repeat.min ?? ''"
          inputmode="numeric"
          @change="setRepeat('min', inputText($event))"
      /></label>
      <label class="small quiet"
        >most
        <v-text-field
          class="number"
          :model-value="group.repeat.max ?? ''"
          inputmode="numeric"
          @change="setRepeat('max', inputText($event))"
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

<style scoped>
.number {
  width: 56px;
}
</style>
