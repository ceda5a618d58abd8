<script setup lang="ts">
import type { Figure } from './figure'

/** What a figure shows, in numbers. What can be asked for leads to the responses behind it. */
const props = defineProps<{ figure: Figure }>()
const emit = defineEmits<{ drill: [condition: string] }>()
const sums = computed(() => props.figure.series.map(s => s.values.reduce((sum, n) => sum + n, 0)))
const hasShares = computed(
  () => !props.figure.isShare && props.figure.series.length === 1 && props.figure.shape !== 'words',
)
const share = (value: number) => {
  const [sum = 0] = sums.value
  return sum === 0 ? '' : `${Math.round((value / sum) * 1_000) / 10} %`
}
const shown = (value: number) => (props.figure.isShare ? `${value} %` : `${value}`)
</script>

<template>
  <v-table
    density="compact"
    :aria-label="`Figures of ${figure.title}`"
  >
    <thead>
      <tr>
        <th scope="col">Answer</th>
        <th
          v-for="s in figure.series"
          :key="s.name"
          scope="col"
          class="number"
        >
          {{ s.name }}
        </th>
        <th
          v-if="hasShares"
          scope="col"
          class="number"
        >
          Share
        </th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(label, i) in figure.labels"
        :key="label"
      >
        <th scope="row">
          <v-btn
            v-if="figure.asked[i]"
            variant="text"
            @click="emit('drill', figure.asked[i] ?? '')"
            >{{ label }}</v-btn
          >
          <template v-else>{{ label }}</template>
        </th>
        <td
          v-for="s in figure.series"
          :key="s.name"
          class="number num"
        >
          {{ shown(s.values[i] ?? 0) }}
        </td>
        <td
          v-if="hasShares"
          class="number num"
        >
          {{ share(figure.series[0]?.values[i] ?? 0) }}
        </td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.v-table {
  max-height: 340px;
  overflow-y: auto;
  background: none;
}
th[scope='row'] {
  font-weight: 400;
}
.number {
  text-align: right;
}
</style>
