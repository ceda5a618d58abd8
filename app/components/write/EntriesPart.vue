<script setup lang="ts">
import type { Condition, EntriesCondition } from '#core/expressions/pointing'
import type { Pointable } from '#core/form/names'

/** A part of a condition that is asked of the entries of a group: of every one, or of some. */
const props = defineProps<{ condition: EntriesCondition; questions: Pointable[] }>()
const emit = defineEmits<{ change: [condition: Condition]; remove: [] }>()
const group = computed(() => props.questions.find(q => q.code === props.condition.group))
const MODES = [
  { value: 'every', title: 'in every entry of' },
  { value: 'some', title: 'in some entry of' },
] as const
</script>

<template>
  <div
    class="entries"
    role="group"
    :aria-label="`Entries of ${group?.label ?? condition.group}`"
  >
    <div class="row-flex">
      <v-select
        class="mode"
        :model-value="condition.mode"
        aria-label="In which entries"
        :items="MODES"
        @update:model-value="emit('change', { ...condition, mode: $event })"
      />
      <span
        ><span class="num quiet">{{ group?.number }}</span> {{ group?.label ?? condition.group }}</span
      >
    </div>
    <ConditionBuilder
      :condition="condition.satisfies"
      :questions="group?.members ?? []"
      nested
      @change="emit('change', { ...condition, satisfies: $event })"
      @remove="emit('remove')"
    />
  </div>
</template>

<style scoped>
.entries {
  display: grid;
  gap: 6px;
}
.mode {
  flex: 0 1 160px;
}
</style>
