<script setup lang="ts">
import type { ValueType } from '#core/expressions/types'
import type { Place } from '#core/form/walk'

/** A calculation or a default, as text, with its sentence. */
const props = defineProps<{
  text: string | undefined
  words: string
  place: Place
  wanted: ValueType | null
  row?: string
  placeholder?: string
}>()
const emit = defineEmits<{ change: [text: string | null] }>()
const draft = useDraft()
const isFine = computed(
  () =>
    props.text !== undefined &&
    draft.names?.read(props.text, props.place, props.wanted, props.row ?? null).expr !== null,
)
</script>

<template>
  <div>
    <ExpressionInput
      :text="text ?? ''"
      :label="words"
      :place="place"
      :wanted="wanted"
      :row="row"
      :placeholder="placeholder"
      @write="emit('change', $event.trim() === '' ? null : $event)"
    />
    <RuleSentence
      v-if="isFine && text"
      :words="words"
      :text="text"
    />
  </div>
</template>
