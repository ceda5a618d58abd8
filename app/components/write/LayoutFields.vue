<script setup lang="ts">
import { LIMITS } from '#core/form/limits'
import type { Place } from '#core/form/walk'

/** How something is laid out: a group's content side by side, how much of that something takes, and the indent of a follow-up. */
const props = defineProps<{ place: Place }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>, merge: string | null] }>()
const group = computed(() => (props.place.kind === 'group' ? props.place.node : null))
const node = computed(() => ({ span: undefined, indent: undefined, ...props.place.node }))
/** How many columns the group around it has. */
const around = computed(() => props.place.groups.at(-1)?.node.columns ?? 1)
const counts = (most: number) => Array.from({ length: most - 1 }, (_, i) => i + 2)
const COLUMNS = [
  { value: 1, title: 'one under another' },
  ...counts(LIMITS.sideBySide).map(n => ({ value: n, title: `${n} side by side` })),
]
const spans = computed(() => [
  { value: 1, title: 'one column' },
  ...counts(around.value).map(n => ({
    value: n,
    title: n === around.value ? 'the whole width' : `${n} columns`,
  })),
])
</script>

<template>
  <span class="left">Layout</span>
  <div class="row-flex">
    <v-select
      v-if="group"
      :model-value="group.columns ?? 1"
      :items="COLUMNS"
      aria-label="How its questions stand"
      class="narrow"
      @update:model-value="emit('set', { columns: $event > 1 ? $event : null }, null)"
    />
    <template v-if="around > 1">
      <span class="small quiet">takes</span>
      <v-select
        :model-value="Math.min(node.span ?? 1, around)"
        :items="spans"
        aria-label="How many columns it takes"
        class="narrow"
        @update:model-value="emit('set', { span: $event > 1 ? $event : null }, null)"
      />
    </template>
    <label class="small"
      ><v-checkbox-btn
        :model-value="node.indent === true"
        @change="emit('set', { indent: node.indent ? null : true }, null)"
      />
      indented, as a follow-up</label
    >
  </div>
</template>

<style scoped>
.narrow {
  max-width: 190px;
}
</style>
