<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { DeliveryQuery, DeliveryRun } from '#shared/api/deliveries'
import { callApi } from '~/api/callApi'

/** What was to happen by itself: what waits, what was done, what was not and why; and once more by hand. */
const props = defineProps<{ form: string; mayAct: boolean }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const state = ref<DeliveryQuery['state']>('')
const page = ref(1)
watch(state, () => (page.value = 1))
const STATES = [
  { value: '', title: 'in any state' },
  { value: 'waiting', title: 'waiting' },
  { value: 'done', title: 'done' },
  { value: 'left', title: 'left' },
  { value: 'given up', title: 'given up' },
] as const
const params = computed(() => ({ id: props.form }))
const query = computed(() => ({ state: state.value, page: page.value }))
const { data, error, refresh } = await useAsyncData(
  `deliveries-${props.form}`,
  () => callApi(API.listDeliveries, { params: params.value, query: query.value }),
  { server: false, watch: [query] },
)
const headers = [
  { title: 'What', key: 'title' },
  { title: 'Response', key: 'number' },
  { title: 'State', key: 'state' },
  { title: 'Said', key: 'said' },
  { title: 'Since', key: 'madeAt' },
  { title: 'Once more', key: 'acts', width: 110 },
]
const stateWords = ({ state: is, tries, dueAt }: DeliveryRun) => {
  if (is !== 'waiting') return is
  return tries === 0
    ? `waits until ${readableDay(dueAt)}, ${readableTime(dueAt)}`
    : `tried ${tries} times, next ${readableTime(dueAt)}`
}
const again = (run: string) =>
  attempt(async () => {
    await callApi(API.deliverAgain, { params: { ...params.value, run } })
    await refresh()
  })
</script>

<template>
  <section
    class="log"
    aria-label="What happens by itself"
  >
    <div class="row-flex">
      <h2>What happens by itself</h2>
      <span
        v-if="data && data.failing > 0"
        class="risk"
        >{{ counted(data.failing, 'delivery', 'deliveries') }} not yet done</span
      >
      <span class="spread" />
      <v-select
        v-model="state"
        :items="STATES"
        aria-label="State"
        class="state"
      />
      <v-btn @click="refresh()">Look again</v-btn>
    </div>
    <RefusalAlert :refusal="refusal ?? (error && refusalOf(error).sentence)" />
    <v-data-table-server
      v-if="data && (data.count > 0 || state !== '')"
      v-model:page="page"
      :headers="headers"
      :items="data.rows"
      :items-length="data.count"
      :items-per-page="50"
      :items-per-page-options="[50]"
      disable-sort
      density="compact"
      class="sheet"
      no-data-text="Nothing is like that."
    >
      <template #[`item.number`]="{ item }"
        ><v-btn
          variant="text"
          :aria-label="`Response ${item.number}`"
          @click="collect.chosen = item.response"
          >{{ item.number }}</v-btn
        ></template
      >
      <template #[`item.state`]="{ item }"
        ><span :class="{ risk: item.state === 'given up' || (item.state === 'waiting' && item.tries > 0) }">{{
          stateWords(item)
        }}</span></template
      >
      <template #[`item.madeAt`]="{ item }"
        >{{ readableDay(item.madeAt) }}, {{ readableTime(item.madeAt) }}</template
      >
      <template #[`item.acts`]="{ item }"
        ><v-btn
          v-if="mayAct && item.state !== 'done'"
          variant="text"
          :disabled="busy"
          :aria-label="`Again: ${item.title}, response ${item.number}`"
          @click="again(item.id)"
          >again</v-btn
        ></template
      >
    </v-data-table-server>
    <v-empty-state
      v-else-if="data"
      class="sheet"
      title="Nothing has happened by itself yet"
      text="What is to happen stands in Write, under “By itself”, and counts from the next version on."
    />
    <p
      v-if="data?.secret"
      class="small quiet"
    >
      Web hooks are signed with this key (HMAC, SHA-256): <code>{{ data.secret }}</code>
    </p>
  </section>
</template>

<style scoped>
.log {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
  overflow-y: auto;
}
.state {
  flex: 0 1 170px;
}
</style>
