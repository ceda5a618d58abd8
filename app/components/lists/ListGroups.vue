<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'
import { groupedOptions } from '#core/lists/levels'
import { addGroupsEdits } from '#core/lists/reshape'

/** Choices pasted group by group. */
const props = defineProps<{ list: ChoiceList; all: readonly ChoiceList[] }>()
const emit = defineEmits<{ added: [list: string] }>()
const draft = useDraft()
const text = ref('')
const groups = computed(() => groupedOptions(text.value))
const rowCount = computed(() => groups.value.reduce((n, g) => n + g.labels.length, 0))
function add() {
  const edits = addGroupsEdits(props.list, props.all, groups.value)
  if (edits.length > 0 && draft.edit(edits)) emit('added', props.list.code)
}
</script>

<template>
  <div>
    <p class="small quiet">
      Paste choices group by group: a line that ends with a colon, or stands before indented lines, is a
      group.
    </p>
    <v-textarea
      v-model="text"
      rows="6"
      aria-label="Choices by group"
      placeholder="North coast:&#10;Saltmarsh Basin&#10;Tern Quay&#10;East coast:&#10;Osier Creek"
    />
    <div class="row-flex">
      <v-btn
        :disabled="groups.length === 0"
        @click="add"
      >
        Add {{ rowCount }} rows in {{ groups.length }} groups
      </v-btn>
    </div>
  </div>
</template>
