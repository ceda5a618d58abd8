<script setup lang="ts">
import {
  mdiChartBar,
  mdiFileDelimitedOutline,
  mdiImageOutline,
  mdiTable,
  mdiViewDashboardOutline,
} from '@mdi/js'
import { stringify } from 'csv-stringify/browser/esm/sync'
import { defuseFormula } from '#core/formats/formulas'
import { download } from '~/browser/download'
import type { Figure } from './figure'

/** One figure: drawn, or as a table, and to be taken along. */
const { drills = true, ...props } = defineProps<{
  figure: Figure
  /** Whether its parts lead to the responses behind them, and it can be put on a dashboard. */
  drills?: boolean
}>()
const emit = defineEmits<{ drill: [condition: string]; search: [word: string]; keep: [] }>()
const drill = (condition: string) => drills && emit('drill', condition)
const chart = useTemplateRef<{ toPicture: () => Promise<Blob | null> }>('chart')
const isTable = ref(false)
const isDrawn = computed(
  () => !['words', 'none'].includes(props.figure.shape) && props.figure.labels.length > 0,
)
const fileName = computed(() => props.figure.key.replaceAll(/[^a-z0-9_]+/g, '_'))
async function takePicture() {
  const picture = await chart.value?.toPicture()
  if (picture) download(`${fileName.value}.png`, [picture], 'image/png')
}
function takeTable() {
  const { labels, series } = props.figure
  const heads = ['', ...series.map(s => defuseFormula(s.name))]
  const lines = labels.map((label, i) => [defuseFormula(label), ...series.map(s => s.values[i] ?? 0)])
  const text = stringify([heads, ...lines], { bom: true, record_delimiter: 'windows' })
  download(`${fileName.value}.csv`, [text], 'text/csv')
}
</script>

<template>
  <article
    class="sheet figure"
    :aria-label="figure.title"
  >
    <div class="row-flex head">
      <h3>{{ figure.title }}</h3>
      <span class="spread" />
      <IconButton
        v-if="isDrawn"
        :icon="isTable ? mdiChartBar : mdiTable"
        :name="isTable ? 'As a chart' : 'As a table'"
        @click="isTable = !isTable"
      />
      <IconButton
        v-if="isDrawn && !isTable"
        :icon="mdiImageOutline"
        name="Take the picture (PNG)"
        @click="takePicture"
      />
      <IconButton
        :icon="mdiFileDelimitedOutline"
        name="Take the table (CSV)"
        @click="takeTable"
      />
      <IconButton
        v-if="drills"
        :icon="mdiViewDashboardOutline"
        name="Put it on a dashboard"
        @click="emit('keep')"
      />
    </div>
    <p class="small quiet">{{ figure.about }}</p>
    <div
      v-if="figure.shape === 'words'"
      class="words"
    >
      <v-btn
        v-for="(word, i) in figure.labels"
        :key="word"
        variant="text"
        @click="drills && emit('search', word)"
        >{{ word }} <span class="num quiet">{{ figure.series[0]?.values[i] }}</span></v-btn
      >
    </div>
    <template v-else-if="isDrawn">
      <FigureTable
        v-if="isTable"
        :figure="figure"
        @drill="drill"
      />
      <v-lazy
        v-else
        min-height="120"
      >
        <LazyFigureChart
          ref="chart"
          :figure="figure"
          @drill="drill"
        />
      </v-lazy>
    </template>
    <p
      v-if="figure.told"
      class="small"
    >
      {{ figure.told }}
    </p>
  </article>
</template>

<style scoped>
.figure {
  padding: 10px 16px 12px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
  align-content: start;
  break-inside: avoid;
}
.head {
  flex-wrap: nowrap;
}
h3 {
  font-size: 14px;
}
.words {
  display: flex;
  flex-wrap: wrap;
  max-height: 220px;
  overflow-y: auto;
}
</style>
