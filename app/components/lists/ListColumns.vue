<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { COLUMN_TYPES, type ChoiceList, type ColumnKind } from '#core/form/choiceLists'
import { columnsOf } from '#core/form/types'
import { addColumnEdit, changeColumnEdit, removeColumnEdits, splitEdits } from '#core/lists/reshape'

/** The columns of a list: added, called otherwise, typed, taken away; and a flat table split into linked lists. */
const props = defineProps<{ list: ChoiceList; all: readonly ChoiceList[] }>()
const emit = defineEmits<{ split: [list: string] }>()
const draft = useDraft()
const KINDS: Record<ColumnKind, string> = { text: 'text', number: 'number', yesNo: 'yes / no', date: 'date' }
const label = ref('')
const levels = ref<string[]>([])
const columns = computed(() => columnsOf(props.list))
const KIND_ITEMS = COLUMN_TYPES.map(value => ({ value, title: KINDS[value] }))
function addColumn() {
  const typed = label.value.trim()
  if (typed && draft.edit([addColumnEdit(props.list, typed)])) label.value = ''
}
const changeColumn = (i: number, part: Parameters<typeof changeColumnEdit>[2]) =>
  draft.edit([changeColumnEdit(props.list, i, part)], `column${i}`)
function split() {
  const edits = splitEdits(props.list, props.all, levels.value)
  if (edits.length === 0 || !draft.edit(edits)) return
  levels.value = []
  emit('split', props.list.code)
}
</script>

<template>
  <div>
    <div
      v-for="(c, i) in columns"
      :key="c.code"
      class="row-flex"
    >
      <code>{{ c.code }}</code>
      <v-text-field
        :model-value="c.label"
        :aria-label="`Column ${c.code}: label`"
        maxlength="80"
        @change="changeColumn(i, { label: inputText($event) })"
      />
      <v-select
        :model-value="c.type"
        :aria-label="`Column ${c.code}: what it holds`"
        :items="KIND_ITEMS"
        @update:model-value="changeColumn(i, { type: $event })"
      />
      <IconButton
        :icon="mdiClose"
        name="Remove"
        @click="draft.edit(removeColumnEdits(list, i))"
      />
    </div>
    <form
      class="row-flex"
      @submit.prevent="addColumn"
    >
      <v-text-field
        v-model="label"
        placeholder="Depth"
        aria-label="Name of a new column"
        maxlength="60"
      /><v-btn
        type="submit"
        variant="text"
        :disabled="!label.trim()"
      >
        + column
      </v-btn>
    </form>
    <div
      v-if="columns.length > 0"
      class="row-flex small"
    >
      <span class="quiet">A flat table with one column for each level? Tick them, outermost first:</span>
      <label
        v-for="c in columns"
        :key="c.code"
        ><v-checkbox-btn
          v-model="levels"
          :value="c.code"
        />
        {{ c.label }}</label
      >
      <v-btn
        variant="text"
        :disabled="levels.length === 0"
        @click="split"
      >
        Split into linked lists: {{ [...levels, list.code].join(' → ') }}
      </v-btn>
    </div>
  </div>
</template>
