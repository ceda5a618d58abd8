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
const MODES = computed((): Record<Mode, string> => ({
  never: 'never',
  always: props.always ?? 'always',
  when: 'when …',
}))
function choose(chosen: Mode) {
  const rule = typeof props.value === 'string' ? props.value : ''
  const values = { never: null, always: true, when: rule } as const
  emit('change', values[chosen])
}
</script>

<template>
  <div>
    <div
      class="modes"
      role="radiogroup"
      :aria-label="name"
    >
      <v-btn
        variant="plain"
        v-for="(text, m) in MODES"
        :key="m"
        role="radio"
        :aria-checked="mode === m"
        @click="choose(m)"
      >
        {{ text }}
      </v-btn>
    </div>
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
  display: inline-flex;
  border: 1px solid var(--line);
  border-radius: 2px;
  margin-bottom: 4px;
}
.modes button {
  border: 0;
  background: none;
  padding: 2px 12px;
  font-size: 13px;
  cursor: pointer;
  min-height: 28px;
}
.modes button[aria-checked='true'] {
  background: var(--ink);
  color: var(--paper);
}
</style>
