<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'
import { changeEdits } from '#core/lists/changes'
import type { RowProblem } from '#core/lists/integrity'

/** What is wrong with the rows of a list, each with its mend where there is one. */
const props = defineProps<{ list: ChoiceList; problems: readonly RowProblem[] }>()
const emit = defineEmits<{ look: [problem: RowProblem] }>()
const draft = useDraft()
function mend({ mend: repair }: RowProblem) {
  if (!repair) return
  const rows = new Map(repair.rows.map(r => [r.at, r.row]))
  draft.edit(changeEdits(`list/${props.list.code}`, props.list.rows, rows))
}
</script>

<template>
  <v-alert
    v-if="problems.length > 0"
    class="problems"
    type="warning"
    role="status"
  >
    <p
      v-for="p in problems"
      :key="p.kind + p.sentence"
    >
      {{ p.sentence }}
      <v-btn
        variant="text"
        @click="emit('look', p)"
      >
        Show {{ p.count === 1 ? 'it' : 'them' }}
      </v-btn>
      <v-btn
        v-if="p.mend"
        variant="text"
        @click="mend(p)"
      >
        {{ p.mend.words }}
      </v-btn>
    </p>
  </v-alert>
</template>

<style scoped>
.problems {
  max-height: 90px;
  overflow-y: auto;
  flex: none;
}
</style>
