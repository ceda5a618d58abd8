<script setup lang="ts">
import type { Place } from '#core/form/walk'
import { useBegunRule } from '~/composables/write/useBegunRule'

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
const rule = computed(() => (typeof props.value === 'string' && props.value !== '' ? props.value : undefined))
const begun = useBegunRule(props, () => rule.value)
/** “When” is chosen, and its rule not written yet: nothing of it is in the draft. */
const isChosen = ref(begun.condition.value !== null)
const mode = computed((): Mode => {
  if (typeof props.value === 'string' || isChosen.value) return 'when'
  return props.value === true ? 'always' : 'never'
})
const options = computed((): { value: Mode; title: string }[] => [
  { value: 'never', title: 'never' },
  { value: 'always', title: props.always ?? 'always' },
  { value: 'when', title: 'when …' },
])
function choose(chosen: Mode) {
  isChosen.value = chosen === 'when'
  if (!isChosen.value) begun.forget()
  if (chosen === 'always') emit('change', true)
  else if (!isChosen.value || props.value === true) emit('change', null)
}
function setRule(text: string | null) {
  isChosen.value = false
  emit('change', text)
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
      v-if="mode === 'when'"
      :words="words"
      :text="rule"
      :place="place"
      :except="place"
      :begins="isChosen"
      @change="setRule"
    />
  </div>
</template>

<style scoped>
.modes {
  margin-bottom: 4px;
}
</style>
