<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'
import { useListKeys } from '~/composables/collect/useListKeys'
import { useShownColumns } from '~/composables/collect/useShownColumns'

/** The responses of a form: counted, found, sorted and paged by the server. */
const props = defineProps<{ form: string }>()
const collect = useCollect()
const draft = useDraft()
const isBringing = ref(false)
const query = computed(() => ({
  ...collect.filter,
  page: collect.page,
  size: collect.size,
  sort: collect.sort,
}))
const { data, error, pending } = await useAsyncData(
  `responses-${props.form}`,
  () => callApi(API.listResponses, { params: { id: props.form }, query: query.value }),
  { server: false, watch: [query, () => collect.changes] },
)
const { headers } = useShownColumns(data)
const turnWords = (row: { turn: string | null; isWithdrawn: boolean }) =>
  row.turn ?? (row.isWithdrawn ? 'withdrawn' : 'done')
const trayNames = computed(() => new Map(collect.workbench?.trays.map(t => [t.id, t.name]) ?? []))
const items = computed(() =>
  (data.value?.rows ?? []).map(row => ({
    ...row,
    turn: turnWords(row),
    tray: trayNames.value.get(row.tray ?? '') ?? '',
  })),
)
const isBin = computed(() => collect.filter.state === 'binned')
const heading = computed(() => {
  if (!data.value) return 'Responses'
  const all = counted(data.value.all, 'response')
  if (isBin.value) return `${counted(data.value.count, 'response')} in the bin`
  return data.value.count === data.value.all ? all : `${data.value.count} of ${all}`
})
const hasAny = computed(() => (data.value?.all ?? 0) > 0 || isBin.value)
useListKeys(items, { pages: () => Math.ceil((data.value?.count ?? 0) / collect.size) })
const choose = (_event: unknown, { item }: { item: { id: string } }) => (collect.chosen = item.id)
const rowOf = ({ item }: { item: { id: string } }) => ({
  class: item.id === collect.chosen ? 'open' : undefined,
})
</script>

<template>
  <section
    class="table"
    aria-label="Responses"
  >
    <div class="row-flex head">
      <h2>{{ heading }}</h2>
      <span class="spread" />
      <v-text-field
        v-model="collect.search"
        placeholder="Search"
        aria-label="Search the responses"
        maxlength="200"
        class="search"
      />
      <ColumnsDialog
        v-if="data && data.all > 0"
        :columns="data.columns"
      />
      <TakeOut
        v-if="data && data.all > 0"
        :form="form"
        :filter="collect.filter"
        :count="data.count"
      />
      <v-btn
        v-if="draft.may('act') && draft.releases.length > 0"
        @click="isBringing = true"
        >Bring in …</v-btn
      >
    </div>
    <LazyImportDialog
      v-if="isBringing"
      :form="form"
      @close="isBringing = false"
    />
    <FilterTools
      v-if="data && hasAny"
      :filter="collect.filter"
      :has-turns="data.hasTurns"
      :is-narrowed="collect.isNarrowed"
      @set="collect.set"
      @clear="collect.clear"
    />
    <SelectedTools
      v-if="data && collect.selected.length > 0"
      :is-bin="isBin"
      :columns="data.columns"
    />
    <RefusalAlert :refusal="error && `The responses could not be fetched: ${refusalOf(error).sentence}`" />
    <v-data-table-server
      v-if="data && hasAny"
      v-model:page="collect.page"
      v-model:items-per-page="collect.size"
      v-model:sort-by="collect.sortedBy"
      v-model="collect.selected"
      show-select
      :headers="headers"
      :items="items"
      :items-length="data.count"
      :items-per-page-options="[25, 50, 100, 200]"
      :loading="pending"
      :row-props="rowOf"
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
          @click.stop="collect.chosen = item.id"
        >
          {{ readableDay(item.sentAt) }}
        </v-btn></template
      >
    </v-data-table-server>
    <slot v-else-if="data" />
    <p
      v-if="data && hasAny"
      class="quiet small"
    >
      “·” was not asked. <kbd>J</kbd> and <kbd>K</kbd> open the next and the previous response.
    </p>
  </section>
</template>

<style scoped>
.table {
  padding: 16px 20px;
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
.table :deep(td .v-btn__content) {
  white-space: nowrap;
}
.table :deep(.v-table) {
  background: var(--paper);
  color: var(--ink);
}
.table :deep(tr.open td) {
  background: var(--verdigris-wash);
}
</style>
