<script setup lang="ts">
import type { ColumnKind } from '#core/form/choiceLists'
import type { ShownColumn } from '#core/lists/cells'
import type { RowOrder } from '#core/lists/view'

/** The heads of a list's grid; a press sorts by the column. */
const props = defineProps<{ columns: readonly ShownColumn[]; sorted: RowOrder | null; template: string }>()
const emit = defineEmits<{ sort: [column: string] }>()
const KINDS: Record<ColumnKind, string> = { text: '', number: 'number', yesNo: 'yes / no', date: 'date' }
const ARROWS = { ascending: ' ↑', descending: ' ↓', none: '' } as const
function direction(column: string): keyof typeof ARROWS {
  if (props.sorted?.column !== column) return 'none'
  return props.sorted.down ? 'descending' : 'ascending'
}
</script>

<template>
  <div
    class="heads"
    role="row"
    aria-rowindex="1"
    :style="{ gridTemplateColumns: template }"
  >
    <span
      class="cell number"
      role="columnheader"
      >#</span
    >
    <span
      v-for="c in columns"
      :key="c.code"
      class="cell"
      role="columnheader"
      :aria-sort="direction(c.code)"
      ><v-btn
        variant="plain"
        class="head"
        tabindex="-1"
        @click="emit('sort', c.code)"
      >
        {{ c.label
        }}<span
          v-if="c.type !== 'text'"
          class="quiet kind"
          >{{ KINDS[c.type] }}</span
        >{{ ARROWS[direction(c.code)] }}
      </v-btn></span
    >
  </div>
</template>

<style scoped>
.heads {
  display: grid;
  height: 28px;
  min-width: 640px;
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--linen);
  font-weight: 600;
  border-bottom: 1px solid var(--line);
}
.cell {
  padding: 4px 8px;
  border-right: 1px solid var(--line);
  overflow: hidden;
  white-space: nowrap;
  min-width: 0;
}
.number {
  color: var(--slate);
}
.kind {
  font-weight: 400;
  margin-left: 6px;
}
.head {
  border: 0;
  background: none;
  font: inherit;
  padding: 0;
  cursor: pointer;
  width: 100%;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
