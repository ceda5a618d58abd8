<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { outlineEdits } from '#core/form/outlineEdits'
import { isAnswerOf, type Drafted, type DraftedQuestion } from '#core/form/outlineQuestion'
import { readOutline } from '#core/form/outlineText'
import { DRAFTED_KINDS, turnDrafted } from '#core/form/turnDrafted'
import { TYPES } from '#core/form/types'
import type { QuestionType } from '#core/form/questions'

/** A pasted outline or table, what would come of it, and its corrections, before it is inserted. */
const props = defineProps<{ text: string }>()
const emit = defineEmits<{ close: [] }>()
const draft = useDraft()
const script = useScript()
const text = ref(props.text)
const drafted = ref<Drafted[]>(readOutline(props.text))
watch(text, now => {
  drafted.value = readOutline(now)
})
const TYPE_ITEMS = Object.entries(TYPES).map(([value, entry]) => ({ value, title: entry.words }))
const isType = (value: string): value is QuestionType => value in TYPES
function retype(d: Drafted, type: string) {
  if (d.kind === 'question' && isType(type)) d.type = type
}
function turn(i: number, kind: string) {
  const before = drafted.value[i]
  const into = DRAFTED_KINDS.find(k => k === kind)
  if (before && into) drafted.value[i] = turnDrafted(before, into)
}
/** The question that one is asked behind, as long as it can be answered so. */
const parentOf = ({ behind }: DraftedQuestion) =>
  drafted.value.find(
    (d): d is DraftedQuestion =>
      d.kind === 'question' && d.line === behind?.line && isAnswerOf(d, behind.answer),
  )
/** What else is read of a question: its choices, its range, and the answer that it is asked behind. */
function about(d: DraftedQuestion): string {
  const parent = parentOf(d)
  return [
    ...d.options,
    ...(d.writeIn ? ['other, please say'] : []),
    ...(d.range ? [`${d.range.min} to ${d.range.max}`] : []),
    ...(d.behind && parent ? [`shown when “${parent.label}” is ${d.behind.answer}`] : []),
  ].join(' · ')
}
const count = computed(() => drafted.value.filter(d => d.kind === 'question').length)
function insert() {
  const below = script.placeAt(draft.selected) ?? draft.places.at(-1)
  if (!draft.form || !below) return
  const made = outlineEdits(draft.form, drafted.value, script.spotBelow(below), below.section + 1)
  // A section that was empty, as in a new form, makes room for those that come.
  const empty = draft.form.sections[below.section]
  const room =
    drafted.value[0]?.kind === 'section' && empty?.items.length === 0
      ? draft.places.find(p => p.kind === 'section' && p.section === below.section)
      : undefined
  if (!draft.edit(room ? [...made.edits, { do: 'remove', what: room.address }] : made.edits)) return
  draft.select(made.addresses[0] ?? null)
  emit('close')
}
</script>

<template>
  <PlainDialog
    title="Paste an outline"
    :width="860"
    @close="emit('close')"
  >
    <v-textarea
      v-if="props.text === ''"
      v-model="text"
      rows="5"
      aria-label="Outline or rows of a spreadsheet"
      placeholder="Paste numbered questions with their options beneath, or rows copied from a spreadsheet (question, type, options, required)"
    />
    <div
      v-if="drafted.length > 0"
      class="drafted"
      role="list"
      aria-label="What would come of it"
    >
      <div
        v-for="(d, i) in drafted"
        :key="i"
        role="listitem"
        class="one"
        :class="d.kind"
      >
        <template v-if="d.kind === 'question'">
          <v-text-field
            v-model="d.label"
            :aria-label="`Line ${i + 1}: label`"
          />
          <v-select
            :model-value="d.type"
            :aria-label="`Line ${i + 1}: type`"
            :items="TYPE_ITEMS"
            @update:model-value="retype(d, $event)"
          />
          <label class="small"><v-checkbox-btn v-model="d.required" /> required</label>
        </template>
        <v-text-field
          v-else-if="d.kind === 'section'"
          v-model="d.title"
          :aria-label="`Line ${i + 1}: section`"
        />
        <v-text-field
          v-else
          v-model="d.text"
          :aria-label="`Line ${i + 1}: note`"
        />
        <v-select
          :model-value="d.kind"
          :aria-label="`Line ${i + 1}: becomes`"
          :items="[
            { value: 'question', title: 'question' },
            { value: 'section', title: 'section' },
            { value: 'note', title: 'note' },
          ]"
          @update:model-value="turn(i, $event)"
        />
        <IconButton
          :icon="mdiClose"
          :name="`Leave line ${i + 1} out`"
          @click="drafted.splice(i, 1)"
        />
        <p
          v-if="d.kind === 'question' && about(d)"
          class="small quiet opts"
        >
          {{ about(d) }}
          <v-btn
            v-if="d.behind && parentOf(d)"
            variant="text"
            @click="d.behind = null"
          >
            Without the rule
          </v-btn>
        </p>
      </div>
    </div>
    <template #actions>
      <v-btn
        :data-first="props.text ? '' : undefined"
        variant="flat"
        color="primary"
        :disabled="drafted.length === 0"
        @click="insert"
      >
        Insert {{ count }} {{ count === 1 ? 'question' : 'questions' }}
      </v-btn>
      <v-btn @click="emit('close')"> Leave it </v-btn>
      <span class="small quiet">They go below the selected row.</span>
    </template>
  </PlainDialog>
</template>

<style scoped>
.drafted {
  display: grid;
  gap: 3px;
}
.one {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 130px auto 96px auto;
  gap: 6px;
  align-items: center;
}
.one.section,
.one.note {
  grid-template-columns: minmax(0, 1fr) 96px auto;
}
.one.section .v-input:first-child {
  font-weight: 700;
}
.one.question {
  padding-left: 16px;
}
.opts {
  grid-column: 1 / -1;
  padding-left: 8px;
}
</style>
