<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { API } from '#shared/api/endpoints'
import type { BoardRow } from '#shared/api/board'
import { callApi } from '~/api/callApi'
import { actsFor, waitsForWords, type ActKind } from './turnActs'

/** The responses in progress of a form: at which turn, since when, with whom, and what can be done about it. */
const chosen = defineModel<string | null>('chosen', { required: true })
const props = defineProps<{ form: string; mayAct: boolean }>()
const { search, settled, page, size } = usePagedSearch()
const turn = ref('')
const late = ref(false)
watch([turn, late], () => (page.value = 1))
const query = computed(() => ({
  turn: turn.value,
  late: late.value ? 'true' : 'false',
  search: settled.value,
  page: page.value,
  size: size.value,
}))
const { data, error, pending, refresh } = await useAsyncData(
  `board-${props.form}`,
  () => callApi(API.loadBoard, { params: { id: props.form }, query: query.value }),
  { server: false, watch: [query] },
)
// What was there is gone meanwhile: back to where there is something.
watch(data, found => {
  if (found && found.rows.length === 0 && page.value > 1) page.value = 1
})
/** Turns are taken elsewhere: what is in progress is looked at again when somebody comes back. */
useEventListener('focus', () => void refresh())
const acting = ref<{ row: BoardRow; act: ActKind } | null>(null)
const headers = [
  { title: 'No.', key: 'number' },
  { title: 'Turn', key: 'name' },
  { title: 'Waits for', key: 'to' },
  { title: 'Since', key: 'openedAt' },
  { title: 'Due', key: 'dueOn' },
  { title: 'State', key: 'state' },
  { title: '', key: 'acts', width: 40 },
]
const stateOf = ({ remark, begunAt, begunBy }: BoardRow) => {
  if (remark) return `Given back: ${remark}`
  return begunAt ? sayBegun(begunBy, readableDay(begunAt)) : 'New'
}
const isFiltered = computed(() => turn.value !== '' || late.value || settled.value.trim() !== '')
const none = computed(() =>
  isFiltered.value ? 'No response in progress is like that.' : 'No response is in progress.',
)
</script>

<template>
  <section
    class="board"
    aria-label="Responses in progress"
  >
    <RefusalAlert
      :refusal="error && `What is in progress could not be fetched: ${refusalOf(error).sentence}`"
    />
    <BoardLanes
      v-if="data && data.lanes.length > 0"
      v-model:turn="turn"
      :lanes="data.lanes"
    />
    <div class="row-flex head">
      <label class="row-flex small"
        ><v-checkbox-btn
          v-model="late"
          density="compact"
        />
        late only</label
      >
      <span class="spread" />
      <v-text-field
        v-model="search"
        placeholder="Search numbers and addresses"
        aria-label="Search numbers and addresses"
        maxlength="200"
        class="search"
      />
    </div>
    <v-data-table-server
      v-if="data"
      v-model:page="page"
      v-model:items-per-page="size"
      :headers="headers"
      :items="data.rows"
      :items-length="data.count"
      :items-per-page-options="[25, 50, 100, 200]"
      :loading="pending"
      disable-sort
      density="compact"
      hover
      fixed-header
      class="sheet"
      :no-data-text="none"
    >
      <template #[`item.number`]="{ item }"
        ><v-btn
          variant="text"
          :aria-label="`Response ${item.number}`"
          @click="chosen = item.response"
        >
          {{ item.number }}
        </v-btn></template
      >
      <template #[`item.to`]="{ item }">{{ waitsForWords(item) }}</template>
      <template #[`item.openedAt`]="{ item }"
        ><span class="day">{{ readableDay(item.openedAt) }}</span></template
      >
      <template #[`item.dueOn`]="{ item }"
        ><span
          class="day"
          :class="{ risk: item.isLate }"
          >{{ sayDue(item.dueOn, item.isLate) }}</span
        ></template
      >
      <template #[`item.state`]="{ item }">
        <span
          class="small"
          :class="{ quiet: !item.remark && !item.begunAt, risk: item.remark }"
          >{{ stateOf(item) }}</span
        >
      </template>
      <template #[`item.acts`]="{ item }">
        <v-menu
          v-if="mayAct"
          location="bottom end"
        >
          <template #activator="{ props: activator }">
            <IconButton
              v-bind="activator"
              :icon="mdiDotsVertical"
              :name="`More for response ${item.number}`"
            />
          </template>
          <v-list>
            <v-list-item
              v-for="a in actsFor(item)"
              :key="a.do"
              :title="a.title"
              @click="acting = { row: item, act: a.do }"
            />
          </v-list>
        </v-menu>
      </template>
    </v-data-table-server>
    <TurnActDialog
      v-if="acting"
      :row="acting.row"
      :act="acting.act"
      @done="refresh()"
      @close="acting = null"
    />
  </section>
</template>

<style scoped>
.board {
  padding: 12px 20px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
  overflow: auto;
}
.day {
  white-space: nowrap;
}
.search {
  flex: 0 1 260px;
}
</style>
