<script setup lang="ts">
import { KEYWORDS } from '#core/expressions/parse'
import { freeCode, takenCodes } from '#core/form/codes'
import { retypeQuestion } from '#core/form/create'
import type { Form } from '#core/form/definition'
import { isQuestionType } from '#core/form/questions'
import { renameEdits } from '#core/form/rename'
import { TYPES } from '#core/form/types'
import type { Address, Place } from '#core/form/walk'

/** The code of a row, and the type of a question or the tone of a note. */
const props = defineProps<{ place: Place }>()
const emit = defineEmits<{ renamed: [address: Address]; set: [values: Record<string, unknown>] }>()
const draft = useDraft()
const question = computed(() => (props.place.kind === 'question' ? props.place.node : null))
const tone = computed(() => (props.place.kind === 'note' ? (props.place.node.tone ?? 'advice') : ''))
const codeProblem = ref('')
function recode(event: Event) {
  const code = inputText(event).trim()
  codeProblem.value = ''
  if (code === props.place.code || !draft.form) return
  const kind = props.place.kind === 'section' ? 'section' : 'item'
  codeProblem.value = problemOfCode(draft.form, code, kind)
  if (codeProblem.value) return
  if (draft.edit(renameEdits(draft.form, props.place.address, code))) emit('renamed', `${kind}/${code}`)
}
/** What keeps a code from being taken; empty when nothing does. */
function problemOfCode(form: Form, code: string, kind: 'section' | 'item'): string {
  if (!/^[a-z][a-z0-9_]{0,59}$/.test(code))
    return 'A code has small letters, digits and “_”, and begins with a letter.'
  if (KEYWORDS.has(code)) return `“${code}” belongs to the rule language; choose another code.`
  const taken = takenCodes(form, kind)
  return taken.has(code) ? `“${code}” is taken; “${freeCode(code, taken)}” is free.` : ''
}
const TYPE_ITEMS = Object.entries(TYPES).map(([value, entry]) => ({ value, title: entry.words }))
const retyped = useRetyped()
function retype(type: string) {
  const before = question.value
  if (!isQuestionType(type) || !before) return
  emit('set', retypeQuestion(before, type, retyped.before(props.place.address)))
  retyped.keep(props.place.address, before)
}
</script>

<template>
  <label :for="`code-${place.address}`">Code</label>
  <div class="row-flex">
    <v-text-field
      :id="`code-${place.address}`"
      class="code"
      :model-value="place.code"
      maxlength="60"
      spellcheck="false"
      @change="recode"
    />
    <template v-if="question">
      <label
        :for="`type-${place.address}`"
        class="small quiet"
        >Type</label
      >
      <v-select
        :id="`type-${place.address}`"
        :model-value="question.type"
        :items="TYPE_ITEMS"
        @update:model-value="retype"
      />
    </template>
    <label
      v-if="place.kind === 'note'"
      class="small quiet"
      >Tone
      <v-select
        :model-value="tone"
        :items="[
          { value: 'plain', title: 'plain' },
          { value: 'advice', title: 'advice' },
          { value: 'warning', title: 'warning' },
        ]"
        @update:model-value="emit('set', { tone: $event === 'advice' ? null : $event })"
    /></label>
    <span
      v-if="codeProblem"
      class="small fault"
      role="alert"
      >{{ codeProblem }}</span
    >
  </div>
</template>

<style scoped>
label[for^='code-'] {
  color: var(--slate);
  font-size: 13px;
  padding-top: 5px;
}
</style>
