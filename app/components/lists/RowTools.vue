<script setup lang="ts">
import { mdiArchiveOutline, mdiTableRowPlusAfter, mdiTableRowRemove } from '@mdi/js'
import { ROW_MARKS, type RowMark } from '#core/form/choiceLists'

/** What is done to the rows that are selected. */
const emit = defineEmits<{ insert: []; retire: []; remove: []; mark: [mark: RowMark | null] }>()
</script>

<template>
  <div class="row-flex tools small">
    <span class="quiet">Rows:</span>
    <IconButton
      :icon="mdiTableRowPlusAfter"
      name="Insert below"
      keys="Ctrl Enter"
      @click="emit('insert')"
    />
    <IconButton
      :icon="mdiArchiveOutline"
      name="Retire / bring back"
      @click="emit('retire')"
    />
    <IconButton
      :icon="mdiTableRowRemove"
      name="Delete"
      @click="emit('remove')"
    />
    <span class="quiet">mark</span>
    <v-btn
      v-for="m in ROW_MARKS"
      :key="m"
      variant="plain"
      class="swatch"
      :class="m"
      :aria-label="`Mark the rows ${m}`"
      :title="m"
      @click="emit('mark', m)"
    />
    <v-btn
      variant="text"
      @click="emit('mark', null)"
    >
      none
    </v-btn>
  </div>
</template>

<style scoped>
.tools {
  gap: 4px 12px;
  flex-wrap: wrap;
}
.swatch {
  width: 18px;
  min-height: 18px;
  padding: 0;
  border: 1px solid var(--control-line);
  cursor: pointer;
}
.swatch.note {
  background: var(--woad);
}
.swatch.check {
  background: var(--weld);
}
.swatch.problem {
  background: var(--madder);
}
.swatch.done {
  background: var(--verdigris);
}
</style>
