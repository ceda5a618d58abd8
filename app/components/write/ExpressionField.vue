<script setup lang="ts">
import type { ValueType } from '#core/expressions/types'
import type { Place } from '#core/form/walk'

/** A calculation or a default, as text: its errors at their place, else as a sentence. */
const props = defineProps<{ text: string | undefined, words: string, place: Place, wanted: ValueType | null, row?: string, placeholder?: string }>()
const emit = defineEmits<{ change: [text: string | null] }>()
const draft = useDraft()
const reading = computed(() => props.text === undefined || !draft.names ? null : draft.names.read(props.text, props.place, props.wanted, props.row ?? null))
const problem = computed(() => {
  const { syntax, problems } = reading.value ?? {}
  return syntax ? { from: syntax.from, sentence: syntax.message } : problems?.[0] ?? null
})
const write = (event: Event) => event.target instanceof HTMLTextAreaElement && emit('change', event.target.value.trim() === '' ? null : event.target.value)
</script>

<template>
  <div class="expression">
    <textarea class="field code" rows="1" :value="text ?? ''" :placeholder="placeholder" :aria-label="words" spellcheck="false" @input="write" />
    <p v-if="problem" class="small fault" role="alert">✕ Character {{ problem.from + 1 }}: {{ problem.sentence }}</p>
    <RuleSentence v-else-if="text" :words="words" :text="text" />
  </div>
</template>

<style scoped>
.expression { display: grid; gap: 2px; min-width: 0; }
textarea { field-sizing: content; min-height: 30px; }
</style>
