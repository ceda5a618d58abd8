<script setup lang="ts">
import { columnsOf } from '#core/form/types'
import type { Finding } from '#core/prove/finding'
import { toldRows } from '~/composables/prove/partWords'

/** The rows of a list that a finding speaks of, as they stand there, the column concerned marked. */
const props = defineProps<{ code: string; inList: NonNullable<Finding['inList']> }>()
const draft = useDraft()
const list = computed(() => draft.form?.lists?.find(l => l.code === props.code) ?? null)
const columns = computed(() => [
  { code: 'code', label: 'Code' },
  { code: 'label', label: 'Label' },
  ...(list.value ? columnsOf(list.value).map(c => ({ code: c.code, label: c.label })) : []),
])
const rows = computed(() =>
  list.value
    ? toldRows(
        list.value,
        columns.value.map(c => c.code),
        props.inList.rows,
      )
    : [],
)
const isMeant = (column: string) => column === props.inList.column
</script>

<template>
  <template v-if="list">
    <p class="quiet small">Rows of “{{ list.title ?? list.code }}”</p>
    <v-table
      class="sheet"
      density="compact"
    >
      <thead>
        <tr>
          <th scope="col">Row</th>
          <th
            v-for="c in columns"
            :key="c.code"
            scope="col"
            :class="{ meant: isMeant(c.code) }"
          >
            {{ c.label }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="r in rows"
          :key="r.number"
        >
          <td class="num quiet">{{ r.number }}</td>
          <td
            v-for="(cell, i) in r.cells"
            :key="i"
            :class="{ meant: isMeant(columns[i]?.code ?? '') }"
          >
            {{ cell }}
          </td>
        </tr>
      </tbody>
    </v-table>
  </template>
</template>

<style scoped>
.meant {
  background: var(--madder-wash);
}
</style>
