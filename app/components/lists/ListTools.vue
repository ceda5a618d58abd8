<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import Papa from 'papaparse'
import type { ChoiceList } from '#core/form/choiceLists'
import { exportTable } from '#core/lists/exportTable'
import type { RowKind } from '#core/lists/view'

/** Finding rows, the panels of a list, and taking it out as a file. */
const search = defineModel<string>('search', { required: true })
const only = defineModel<RowKind>('only', { required: true })
const panel = defineModel<Panel | null>('panel', { required: true })
const props = defineProps<{ list: ChoiceList; inView: number; sorted: boolean }>()
const emit = defineEmits<{ keepOrder: [] }>()
export type Panel = keyof typeof PANELS

const PANELS = { columns: 'Columns', tree: 'Tree', import: 'Import', groups: 'Paste by group' } as const
/** The panels at hand; the others are in the menu. */
const AT_HAND: readonly Panel[] = ['columns', 'tree', 'import']
const KINDS: Record<RowKind, string> = {
  all: 'all rows',
  live: 'offered',
  retired: 'retired',
  marked: 'marked',
  problems: 'with problems',
}
const KIND_ITEMS = Object.entries(KINDS).map(([value, title]) => ({ value, title }))
const toggle = (key: Panel) => (panel.value = panel.value === key ? null : key)
const count = computed(() => {
  const all = props.list.rows.length
  return props.inView === all ? `${all} rows` : `${props.inView} of ${all}`
})
const exportCsv = () =>
  download(`${props.list.code}.csv`, ['\uFEFF', Papa.unparse(exportTable(props.list))], 'text/csv')
const exporting = ref(false)
async function exportXlsx() {
  exporting.value = true
  const { default: write } = await import('write-excel-file/browser')
  const data = exportTable(props.list).map(line => line.map(value => ({ value })))
  const book = await write(data).toBlob()
  download(`${props.list.code}.xlsx`, [book], book.type)
  exporting.value = false
}
</script>

<template>
  <div class="row-flex tools">
    <v-text-field
      v-model="search"
      placeholder="Find"
      aria-label="Find in the list"
    />
    <v-select
      v-model="only"
      aria-label="Which rows"
      :items="KIND_ITEMS"
    />
    <span class="small quiet num">{{ count }}</span>
    <v-btn
      v-if="sorted"
      variant="text"
      @click="emit('keepOrder')"
    >
      Keep this order
    </v-btn>
    <span class="spread" />
    <v-btn
      v-for="key in AT_HAND"
      :key="key"
      variant="text"
      :aria-expanded="panel === key"
      @click="toggle(key)"
    >
      {{ PANELS[key] }}
    </v-btn>
    <v-menu location="bottom end">
      <template #activator="{ props: activator }">
        <IconButton
          v-bind="activator"
          :icon="mdiDotsVertical"
          name="More"
        />
      </template>
      <v-list>
        <v-list-item
          :title="PANELS.groups"
          @click="panel = 'groups'"
        />
        <v-list-item
          title="Export as CSV"
          @click="exportCsv"
        />
        <v-list-item
          title="Export as XLSX"
          :disabled="exporting"
          @click="exportXlsx"
        />
      </v-list>
    </v-menu>
  </div>
</template>

<style scoped>
.tools {
  gap: 4px 12px;
  flex-wrap: wrap;
}
.tools .v-input {
  flex: 0 1 112px;
}
</style>
