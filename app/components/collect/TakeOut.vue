<script setup lang="ts">
import { MOST_PICKED, type ExportQuery, type ResponseFilter } from '#shared/api/responses'

/** Takes out the responses that the table shows, or only those that are selected, as a file. */
const { ids = [], ...props } = defineProps<{
  form: string
  filter: ResponseFilter
  count: number
  ids?: readonly string[]
}>()
const values = ref<ExportQuery['values']>('labels')
const isSpread = ref(false)
const VALUES = [
  { value: 'labels', title: 'labels' },
  { value: 'codes', title: 'codes' },
  { value: 'both', title: 'both' },
] as const
const FORMATS = [
  { format: 'xlsx', title: 'Workbook (XLSX)', about: 'with a sheet for what repeats, and one of codes' },
  { format: 'csv', title: 'Table (CSV)', about: 'one response in a line' },
  { format: 'jsonl', title: 'JSON Lines', about: 'the answers as they are stored' },
  { format: 'pdf', title: 'To be read (PDF)', about: 'each on pages of its own, 100 at most' },
  {
    format: 'documents',
    title: 'Documents (ZIP)',
    about: 'as they were made last, a folder for each response',
  },
  {
    format: 'documentsPdf',
    title: 'Documents as PDF (ZIP)',
    about: 'those not set yet are set now: 200 documents at most',
  },
  { format: 'files', title: 'Files (ZIP)', about: 'what was given, a folder for each response' },
] as const
function addressOf(format: ExportQuery['format']): string {
  const query = new URLSearchParams({ format, values: values.value, spread: isSpread.value ? 'yes' : '' })
  for (const [key, value] of Object.entries(props.filter))
    if (value !== '' && value !== 0) query.set(key, `${value}`)
  if (ids.length > 0) query.set('ids', ids.join(','))
  return `/api/forms/${props.form}/export?${query}`
}
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: opens }">
      <v-btn
        v-bind="opens"
        :disabled="ids.length > MOST_PICKED"
        :title="
          ids.length > MOST_PICKED
            ? `At most ${MOST_PICKED} at once; all of a filter can be taken out above`
            : undefined
        "
        >Take out …</v-btn
      >
    </template>
    <v-card class="take">
      <p>
        {{ counted(count, 'response') }},
        {{ ids.length > 0 ? 'those selected' : 'as the table is filtered' }}.
      </p>
      <div class="row-flex">
        <span>Choices as</span>
        <SegmentedChoice
          v-model="values"
          name="Choices as"
          :options="VALUES"
        />
      </div>
      <v-checkbox
        v-model="isSpread"
        label="Several chosen: a column for each choice"
      />
      <div
        v-for="{ format, title, about } in FORMATS"
        :key="format"
        class="row-flex"
      >
        <v-btn
          :href="addressOf(format)"
          download
          >{{ title }}</v-btn
        >
        <span class="small quiet">{{ about }}</span>
      </div>
    </v-card>
  </v-menu>
</template>

<style scoped>
.take {
  display: grid;
  gap: 10px;
  padding: 14px 16px;
}
</style>
