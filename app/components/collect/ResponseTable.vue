<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** The responses of a form: counted, found, sorted and paged by the server. */
const chosen = defineModel<string | null>('chosen', { required: true })
const props = defineProps<{ form: string }>()

const { search, filter, set, isNarrowed, clear, page, size } = useResponseFilter()
const sortedBy = ref<{ key: string; order: 'asc' | 'desc' }[]>([])
const sort = computed(() => {
  const [by] = sortedBy.value
  if (!by) return '-sentAt'
  return by.order === 'desc' ? `-${by.key}` : by.key
})
const query = computed(() => ({
  ...filter.value,
  page: page.value,
  size: size.value,
  sort: sort.value,
}))
const { data, error, pending } = await useAsyncData(
  `responses-${props.form}`,
  () => callApi(API.listResponses, { params: { id: props.form }, query: query.value }),
  { server: false, watch: [query] },
)
const headers = computed(() => [
  { title: 'No.', key: 'number' },
  { title: 'Sent', key: 'sentAt' },
  { title: 'Version', key: 'release' },
  ...(data.value?.hasTurns ? [{ title: 'Turn', key: 'turn' }] : []),
  ...(data.value?.columns ?? []).map(c => ({ title: c.label, key: `cells.${c.code}` })),
])
const turnWords = (row: { turn: string | null; isWithdrawn: boolean }) =>
  row.turn ?? (row.isWithdrawn ? 'withdrawn' : 'done')
const items = computed(() => (data.value?.rows ?? []).map(row => ({ ...row, turn: turnWords(row) })))
const heading = computed(() => {
  if (!data.value) return 'Responses'
  const all = counted(data.value.all, 'response')
  return data.value.count === data.value.all ? all : `${data.value.count} of ${all}`
})
const choose = (_event: unknown, { item }: { item: { id: string } }) => (chosen.value = item.id)
</script>

<template>
  <section
    class="table"
    aria-label="Responses"
  >
    <div class="row-flex head">
      <h2>{{ heading }}</h2>
      <span class="quiet small">“·” was not asked</span>
      <span class="spread" />
      <v-text-field
        v-model="search"
        placeholder="Search"
        aria-label="Search the responses"
        maxlength="200"
        class="search"
      />
      <TakeOut
        v-if="data && data.all > 0"
        :form="form"
        :filter="filter"
        :count="data.count"
      />
    </div>
    <FilterTools
      v-if="data && data.all > 0"
      :filter="filter"
      :has-turns="data.hasTurns"
      :is-narrowed="isNarrowed"
      @set="set"
      @clear="clear"
    />
    <RefusalAlert :refusal="error && `The responses could not be fetched: ${refusalOf(error).sentence}`" />
    <v-data-table-server
      v-if="data && data.all > 0"
      v-model:page="page"
      v-model:items-per-page="size"
      v-model:sort-by="sortedBy"
      :headers="headers"
      :items="items"
      :items-length="data.count"
      :items-per-page-options="[25, 50, 100, 200]"
      :loading="pending"
      density="compact"
      hover
      fixed-header
      class="sheet"
      no-data-text="No response is like that."
      @click:row="choose"
    >
      <template #[`item.sentAt`]="{ item }"
        ><v-btn
          variant="text"
          @click.stop="chosen = item.id"
        >
          {{ readableDay(item.sentAt) }}
        </v-btn></template
      >
    </v-data-table-server>
    <slot v-else-if="data" />
  </section>
</template>

<style scoped>
.table {
  padding: 20px;
  display: grid;
  /* Of a wide table only the table scrolls sideways, not what stands above it. */
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
  overflow: auto;
}
.search {
  flex: 0 1 260px;
}
.table :deep(th),
.table :deep(td) {
  white-space: nowrap;
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.table :deep(.v-data-table-header__content > span) {
  overflow: hidden;
  text-overflow: ellipsis;
}
.table :deep(td:first-child),
.table :deep(th:first-child) {
  padding-left: 12px;
}
.table :deep(td .v-btn__content) {
  white-space: nowrap;
}
.table :deep(.v-table) {
  background: var(--paper);
  color: var(--ink);
}
</style>
