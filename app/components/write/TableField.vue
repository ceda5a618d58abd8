<script setup lang="ts">
import type { Question, Table } from '#core/form/questions'

/** A list that an answer is looked up in: only those in it are taken, or all others. Respondents never get the list. */
const props = defineProps<{ question: Question }>()
const emit = defineEmits<{ change: [table: Table | null, merge: string | null] }>()
const draft = useDraft()
const table = computed(() => ('table' in props.question ? props.question.table : undefined))
const lists = computed(() => [
  { value: '', title: 'in no list' },
  ...(draft.form?.lists ?? []).map(l => ({ value: l.code, title: l.title ?? l.code })),
])
const TAKES = [
  { value: 'these', title: 'only what is in it' },
  { value: 'others', title: 'only what is not in it' },
]
const MESSAGE = 'This is not taken here.'
function choose(list: string) {
  if (list === '') return emit('change', null, null)
  emit('change', { takes: 'others', message: MESSAGE, ...table.value, list }, null)
}
function change(part: Partial<Table>, merge: string | null) {
  if (table.value) emit('change', { ...table.value, ...part }, merge)
}
</script>

<template>
  <div class="table-field">
    <div class="row-flex">
      <v-select
        :model-value="table?.list ?? ''"
        :items="lists"
        aria-label="The list that the answer is looked up in"
        class="middling"
        @update:model-value="choose"
      />
      <v-select
        v-if="table"
        :model-value="table.takes"
        :items="TAKES"
        aria-label="What is taken"
        class="middling"
        @update:model-value="change({ takes: $event === 'these' ? 'these' : 'others' }, null)"
      />
    </div>
    <v-text-field
      v-if="table"
      :model-value="table.message"
      aria-label="Message when the answer is not taken"
      maxlength="500"
      @input="inputText($event).trim() && change({ message: inputText($event) }, 'table')"
    />
  </div>
</template>

<style scoped>
.table-field {
  display: grid;
  gap: 4px;
}
.middling {
  max-width: 220px;
}
</style>
