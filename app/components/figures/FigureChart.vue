<script setup lang="ts">
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import { Bar } from 'vue-chartjs'
import { useTheme } from 'vuetify'
import { PALETTE } from '~/theme/palette'
import type { Figure } from './figure'

/** A figure as it is drawn; what it shows stands in a table beside it, too. */
const props = defineProps<{ figure: Figure }>()
const emit = defineEmits<{ drill: [condition: string] }>()
Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif"
Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip)
const theme = useTheme()
const colours = computed(() => PALETTE[theme.current.value.dark ? 'dark' : 'light'])
const dyes = computed(() => {
  const { verdigris, woad, weld, madder, slate, ink } = colours.value
  return [verdigris, woad, weld, madder, slate, ink]
})
const isAlong = computed(() => props.figure.shape !== 'columns')
const isStacked = computed(() => props.figure.shape === 'stacked')
/** Pixels of a bar, with what stands between it and the next, and of what stands around them all. */
const BAR = 24
const AROUND = 44
const COLUMNS = 200
const height = computed(() => {
  const { labels, series } = props.figure
  if (!isAlong.value) return COLUMNS
  const bars = isStacked.value ? labels.length : labels.length * Math.min(series.length, 4)
  return AROUND + BAR * bars + (series.length > 1 ? BAR : 0)
})
const data = computed((): ChartData<'bar'> => ({
  labels: props.figure.labels,
  datasets: props.figure.series.map(({ name, values }, i) => ({
    label: name,
    data: values,
    backgroundColor: dyes.value[i % dyes.value.length],
    maxBarThickness: 30,
  })),
}))
const options = computed((): ChartOptions<'bar'> => {
  const { ink, line } = colours.value
  const values = {
    stacked: isStacked.value,
    beginAtZero: true,
    max: isStacked.value ? 100 : undefined,
    grid: { color: line },
    ticks: { color: ink, precision: props.figure.isShare ? undefined : 0 },
  }
  const names = {
    stacked: isStacked.value,
    grid: { display: false },
    ticks: { color: ink, autoSkip: !isAlong.value },
  }
  return {
    indexAxis: isAlong.value ? 'y' : 'x',
    responsive: true,
    maintainAspectRatio: false,
    animation: false,
    scales: isAlong.value ? { x: values, y: names } : { x: names, y: values },
    plugins: { legend: { display: props.figure.series.length > 1, labels: { color: ink, boxWidth: 12 } } },
    onClick: (_event, [hit]) => {
      const condition = hit && props.figure.asked[hit.index]
      if (condition) emit('drill', condition)
    },
  }
})
const drawn = useTemplateRef<{ chart: Chart | null }>('drawn')
/** The drawing as a picture. */
const toPicture = () =>
  new Promise<Blob | null>(resolve => {
    const canvas = drawn.value?.chart?.canvas
    if (canvas) canvas.toBlob(resolve, 'image/png')
    else resolve(null)
  })
defineExpose({ toPicture })
</script>

<template>
  <div :style="{ height: `${height}px` }">
    <Bar
      ref="drawn"
      :data="data"
      :options="options"
      :aria-label="`${figure.title}: what stands in the table “Figures of ${figure.title}”`"
    />
  </div>
</template>
