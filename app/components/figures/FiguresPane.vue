<script setup lang="ts">
import { mdiViewDashboardOutline } from '@mdi/js'
import { API } from '#shared/api/endpoints'
import type { Summary } from '#shared/api/summaries'
import { callApi } from '~/api/callApi'
import { useSummaries } from '~/composables/collect/useSummaries'
import { figuresOf } from './figure'
import { stepFigures } from './stepFigures'

/** What the responses say, question by question: those that the filter leaves, compared by what one likes. */
const props = defineProps<{ form: string }>()
const collect = useCollect()
const by = ref('')
const query = computed(() => ({ ...collect.filter, by: by.value }))
const { data, refusal } = useSummaries<Summary>(
  () => callApi(API.summariseResponses, { params: { id: props.form }, query: query.value }),
  computed(() => [query.value, collect.changes]),
)
/** How far people come, whatever they answer: of the version that the filter names, else of the newest. */
const { data: steps } = useLazyAsyncData(
  `steps-${props.form}`,
  () =>
    callApi(API.loadPageSteps, { params: { id: props.form }, query: { release: collect.filter.release } }),
  { server: false, watch: [() => collect.filter.release] },
)
const ofSteps = computed(() => (steps.value ? stepFigures(steps.value) : []))
const figures = computed(() => (data.value?.isReady ? figuresOf(data.value) : []))
const sections = computed(() =>
  [...new Set(figures.value.map(f => f.section))].map(section => ({
    section,
    figures: figures.value.filter(f => f.section === section),
  })),
)
const sides = computed(() => [
  { key: '', label: 'not compared' },
  ...(data.value?.dimensions ?? []).map(({ key, label }) => ({ key, label: `by ${label}` })),
])
const heading = computed(() => {
  if (!data.value?.isReady) return 'Figures'
  return `Figures of ${counted(data.value.count, 'response')}`
})
/** The figure that is to stand on a dashboard; that of no question is how many responses there are. */
const keeping = ref<{ key: string; title: string } | null>(null)
const tile = computed(() => ({
  form: props.form,
  figure: keeping.value?.key ?? '',
  title: keeping.value?.title ?? '',
  filter: collect.filter,
  by: by.value,
}))
const share = computed(() => (data.value ? (100 * data.value.done) / Math.max(1, data.value.all) : 0))
</script>

<template>
  <section
    class="figures"
    aria-label="Figures"
  >
    <div class="row-flex">
      <h2>{{ heading }}</h2>
      <IconButton
        v-if="data?.isReady"
        :icon="mdiViewDashboardOutline"
        name="Put the number on a dashboard"
        @click="keeping = { key: '', title: 'Responses' }"
      />
      <span class="spread" />
      <v-autocomplete
        v-model="by"
        :items="sides"
        item-value="key"
        item-title="label"
        aria-label="Compared by"
        class="by"
      />
    </div>
    <FilterTools
      :filter="collect.filter"
      :has-turns="false"
      :is-narrowed="collect.isNarrowed"
      @set="collect.set"
      @clear="collect.clear"
    />
    <RefusalAlert :refusal="refusal" />
    <Suspense v-if="keeping">
      <AddToDashboard
        :tile="tile"
        @close="keeping = null"
      />
    </Suspense>
    <template v-if="data && !data.isReady">
      <p role="status">The responses are being read: {{ data.done }} of {{ data.all }}.</p>
      <v-progress-linear
        :model-value="share"
        aria-label="The responses are being read"
      />
    </template>
    <v-empty-state
      v-if="data?.isReady && data.count === 0"
      class="sheet"
      title="No response is like that"
      text="Figures are made of the responses that stand: what was withdrawn or deleted is not in them."
    />
    <div
      v-if="ofSteps.length > 0 && data?.isReady && by === ''"
      class="grid"
    >
      <FigureCard
        v-for="f in ofSteps"
        :key="f.key"
        :figure="f"
        :drills="false"
      />
    </div>
    <template
      v-for="s in sections"
      :key="s.section"
    >
      <h3>{{ s.section }}</h3>
      <div class="grid">
        <FigureCard
          v-for="f in s.figures"
          :key="f.key"
          :figure="f"
          @drill="collect.drill"
          @search="collect.drillWord"
          @keep="keeping = { key: f.key, title: f.title }"
        />
      </div>
    </template>
  </section>
</template>

<style scoped>
.figures {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
  overflow-y: auto;
}
.by {
  flex: 0 1 320px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 400px), 1fr));
  gap: 12px;
}
h3 {
  font-size: 15px;
}
</style>
