<script setup lang="ts">
import { mdiFileDelimitedOutline } from '@mdi/js'
import { stringify } from 'csv-stringify/browser/esm/sync'
import { defuseFormula } from '#core/formats/formulas'
import { API } from '#shared/api/endpoints'
import type { CrossAnswer, CrossQuery, Summary } from '#shared/api/summaries'
import { callApi } from '~/api/callApi'
import { download } from '~/browser/download'
import { useSummaries } from '~/composables/collect/useSummaries'

/** The responses counted by two or three of their answers, with the figure of a further one in each cell. */
const props = defineProps<{ form: string }>()
const collect = useCollect()
const rows = ref('')
const columns = ref('@month')
const layer = ref('')
const figure = ref<CrossQuery['figure']>('count')
const of = ref('')
const isShare = ref(false)
const params = computed(() => ({ id: props.form }))
const FIGURES = [
  { value: 'count', title: 'how many' },
  { value: 'sum', title: 'the sum of' },
  { value: 'mean', title: 'the mean of' },
  { value: 'median', title: 'the median of' },
] as const
const { data: known, refusal: unknown } = useSummaries<Summary>(
  () => callApi(API.summariseResponses, { params: params.value, query: collect.filter }),
  computed(() => [collect.filter, collect.changes]),
)
const sides = computed(() => known.value?.dimensions ?? [])
const numbers = computed(() =>
  (known.value?.groups[0]?.measures ?? [])
    .filter(m => m.measure.kind === 'number')
    .map(({ measure: { key, label } }) => ({ key, label })),
)
watch(sides, found => {
  if (rows.value === '') rows.value = found.find(d => !d.key.startsWith('@'))?.key ?? '@release'
})
const query = computed(() => ({
  ...collect.filter,
  rows: rows.value || '@release',
  columns: columns.value,
  layer: layer.value,
  figure: of.value === '' ? ('count' as const) : figure.value,
  of: figure.value === 'count' ? '' : of.value,
}))
const { data, refusal } = useSummaries<CrossAnswer>(
  () => callApi(API.crossResponses, { params: params.value, query: query.value }),
  computed(() => [query.value, collect.changes]),
)
const table = computed(() => data.value?.table ?? null)
type Layer = NonNullable<CrossAnswer['table']>['layers'][number]
const sumOf = (counts: readonly (readonly number[])[]) => counts.flat().reduce((sum, n) => sum + n, 0)
function shown(l: Layer, r: number, c: number): string {
  const value = l.cells[r]?.[c] ?? null
  if (value === null) return '·'
  if (query.value.figure === 'count' && isShare.value)
    return `${Math.round((1_000 * value) / Math.max(1, sumOf(l.counts))) / 10} %`
  return `${Math.round(value * 100) / 100}`
}
const rowSum = (l: Layer, r: number) => (l.counts[r] ?? []).reduce((sum, n) => sum + n, 0)
const columnSum = (l: Layer, c: number) => l.counts.reduce((sum, line) => sum + (line[c] ?? 0), 0)
function askedAt(r: number, c: number): string | null {
  const [a, b] = [table.value?.rows.headings[r]?.asked, table.value?.columns.headings[c]?.asked]
  return a && b && layer.value === '' ? `${a} and ${b}` : null
}
function take() {
  if (!table.value) return
  const heads = table.value.columns.headings.map(h => defuseFormula(h.label))
  const lines = table.value.layers.flatMap(l => [
    [defuseFormula(l.label), ...heads],
    ...(table.value?.rows.headings ?? []).map((h, r) => [defuseFormula(h.label), ...(l.cells[r] ?? [])]),
  ])
  const text = stringify(lines, { bom: true, record_delimiter: 'windows' })
  download('crossed.csv', [text], 'text/csv')
}
</script>

<template>
  <section
    class="cross"
    aria-label="Crossed"
  >
    <div class="row-flex">
      <h2>Crossed</h2>
      <span class="spread" />
      <v-checkbox
        v-model="isShare"
        label="as shares"
        :disabled="query.figure !== 'count'"
      />
      <IconButton
        :icon="mdiFileDelimitedOutline"
        name="Take the table (CSV)"
        @click="take"
      />
    </div>
    <div class="choices">
      <label
        >Down
        <v-autocomplete
          v-model="rows"
          :items="sides"
          item-value="key"
          item-title="label"
          aria-label="Down the table"
      /></label>
      <label
        >Across
        <v-autocomplete
          v-model="columns"
          :items="sides"
          item-value="key"
          item-title="label"
          aria-label="Across the table"
      /></label>
      <label
        >A table for each
        <v-autocomplete
          v-model="layer"
          :items="[{ key: '', label: 'one table' }, ...sides]"
          item-value="key"
          item-title="label"
          aria-label="A table for each"
      /></label>
      <label
        >In each cell
        <v-select
          v-model="figure"
          :items="FIGURES"
          aria-label="In each cell"
      /></label>
      <label v-if="figure !== 'count'"
        >Of
        <v-autocomplete
          v-model="of"
          :items="numbers"
          item-value="key"
          item-title="label"
          aria-label="Of which question"
      /></label>
    </div>
    <FilterTools
      :filter="collect.filter"
      :has-turns="false"
      :is-narrowed="collect.isNarrowed"
      @set="collect.set"
      @clear="collect.clear"
    />
    <RefusalAlert :refusal="refusal ?? unknown" />
    <template v-if="table">
      <p class="small quiet">
        {{ counted(table.counted, 'response') }} in the table<template v-if="table.left > 0"
          >; {{ table.left }} without an answer on one of its sides</template
        >. A response that chose several stands in several cells.
      </p>
      <template
        v-for="l in table.layers"
        :key="l.label"
      >
        <h3 v-if="l.label">{{ l.label }}</h3>
        <v-table
          density="compact"
          class="sheet"
          :aria-label="`${table.rows.label} by ${table.columns.label}${l.label ? `, ${l.label}` : ''}`"
        >
          <thead>
            <tr>
              <th scope="col">{{ table.rows.label }}</th>
              <th
                v-for="h in table.columns.headings"
                :key="h.code"
                scope="col"
                class="number"
              >
                {{ h.label }}
              </th>
              <th
                scope="col"
                class="number"
              >
                Responses
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(h, r) in table.rows.headings"
              :key="h.code"
            >
              <th scope="row">{{ h.label }}</th>
              <td
                v-for="(c, i) in table.columns.headings"
                :key="c.code"
                class="number num"
              >
                <v-btn
                  v-if="askedAt(r, i) && (l.counts[r]?.[i] ?? 0) > 0"
                  variant="text"
                  :aria-label="`${shown(l, r, i)}: ${h.label}, ${c.label}`"
                  @click="collect.drill(askedAt(r, i) ?? '')"
                  >{{ shown(l, r, i) }}</v-btn
                >
                <template v-else>{{ shown(l, r, i) }}</template>
              </td>
              <td class="number num quiet">{{ rowSum(l, r) }}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <th scope="row">Responses</th>
              <td
                v-for="(c, i) in table.columns.headings"
                :key="c.code"
                class="number num quiet"
              >
                {{ columnSum(l, i) }}
              </td>
              <td class="number num quiet">{{ sumOf(l.counts) }}</td>
            </tr>
          </tfoot>
        </v-table>
      </template>
    </template>
  </section>
</template>

<style scoped>
.cross {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
  overflow-y: auto;
}
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: 12px;
  font-size: 13px;
}
.number {
  text-align: right;
  white-space: nowrap;
}
th[scope='row'] {
  font-weight: 400;
}
</style>
