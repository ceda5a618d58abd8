<script setup lang="ts">
import { ROW_MARKS, type RowMark } from '#core/form/choiceLists'

/** What is done to the rows that are selected. */
const emit = defineEmits<{ insert: []; retire: []; remove: []; mark: [mark: RowMark | null] }>()
</script>

<template>
  <div class="row-flex tools small">
    <span class="quiet">Rows:</span>
    <v-btn
      variant="text"
      @click="emit('insert')"
    >
      Insert below <kbd>Ctrl Enter</kbd>
    </v-btn>
    <v-btn
      variant="text"
      @click="emit('retire')"
    >
      Retire / bring back
    </v-btn>
    <v-btn
      variant="text"
      @click="emit('remove')"
    >
      Delete
    </v-btn>
    <span class="quiet">mark</span>
    <v-btn
      variant="plain"
      v-for="m in ROW_MARKS"
      :key="m"
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
  height: 18px;
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
