<script setup lang="ts">
import type { Place } from '#core/form/walk'

/** Never, always, or when a condition holds. */
const props = defineProps<{
  // A text first: Vue takes an empty one, a rule that is being begun, for true where a boolean stands before.
  value: string | true | undefined
  name: string
  words: string
  place: Place
  always?: string
}>()
const emit = defineEmits<{ change: [value: true | string | null] }>()
type Mode = 'never' | 'always' | 'when'
const mode = computed((): Mode => {
  if (props.value === undefined) return 'never'
  return props.value === true ? 'always' : 'when'
})
const options = computed((): { value: Mode; title: string }[] => [
  { value: 'never', title: 'never' },
  { value: 'always', title: props.always ?? 'always' },
  { value: 'when', title: 'when …' },
])
function choose(chosen: Mode) {
  const rule = typeof props.value === 'string' ? props.value : ''
  const values = { never: null, always: true, when: rule } as const
  emit('change', values[chosen])
}
</script>

<template>
  <div>
    <SegmentedChoice
      class="modes"
      :model-value="mode"
      :options="options"
      :name="name"
      @update:model-value="choose"
    />
    <RuleField
      v-if="typeof value === 'string'"
      :words="words"
      :text="value === '' ? undefined : value"
      :place="place"
      @change="emit('change', $event)"
    />
  </div>
</template>

<style scoped>
.modes {
  margin-bottom: 4px;
}
</style>
