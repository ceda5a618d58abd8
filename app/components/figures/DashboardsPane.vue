<script setup lang="ts">
import { mdiPrinterOutline } from '@mdi/js'
import { API } from '#shared/api/endpoints'
import type { Tile } from '#shared/api/dashboards'
import { callApi } from '~/api/callApi'
import { useSummaryCache } from '~/composables/collect/useSummaryCache'

/** Dashboards: chosen figures of one form or several, kept, shared and printed. */
const route = useRoute()
const { refusal, busy, attempt } = useRefusable()
const { data, error, refresh } = await useAsyncData('dashboards', () => callApi(API.listDashboards), {
  server: false,
})
const boards = computed(() => data.value?.dashboards ?? [])
const open = computed(() => boards.value.find(b => b.id === route.query.board) ?? boards.value[0] ?? null)
const summaryOf = useSummaryCache()
const isNaming = ref(false)
const name = ref('')
const isShared = ref(false)
function beginNaming() {
  name.value = open.value?.name ?? ''
  isShared.value = open.value?.isShared ?? false
  isNaming.value = true
}
async function save(change: { name?: string; isShared?: boolean; tiles?: readonly Tile[] }) {
  const board = open.value
  if (!board) return
  const { name: before, isShared: wasShared, tiles } = board
  const kept = (change.tiles ?? tiles).map(({ form, figure, title, filter, by }) => ({
    ...{ form, figure, title, filter, by },
  }))
  const body = { name: change.name ?? before, isShared: change.isShared ?? wasShared, tiles: kept }
  await callApi(API.changeDashboard, { params: { id: board.id }, body })
  await refresh()
}
const rename = () =>
  attempt(async () => {
    await save({ name: name.value, isShared: isShared.value })
    isNaming.value = false
  })
const remove = () =>
  attempt(async () => {
    if (open.value) await callApi(API.deleteDashboard, { params: { id: open.value.id } })
    isNaming.value = false
    await navigateTo({ query: {} })
    await refresh()
  })
function move(from: number, by: number) {
  const tiles = [...(open.value?.tiles ?? [])]
  const [tile] = tiles.splice(from, 1)
  if (tile) tiles.splice(from + by, 0, tile)
  return attempt(() => save({ tiles }))
}
const takeOff = (at: number) =>
  attempt(() => save({ tiles: (open.value?.tiles ?? []).filter((_, i) => i !== at) }))
const print = () => window.print()
</script>

<template>
  <div class="boards">
    <nav aria-label="Dashboards">
      <h2>Dashboards</h2>
      <v-list density="compact">
        <v-list-item
          v-for="b in boards"
          :key="b.id"
          :active="b.id === open?.id"
          :title="b.name"
          :subtitle="b.isOwn ? undefined : b.by"
          @click="navigateTo({ query: { board: b.id } })"
        />
      </v-list>
    </nav>
    <section
      class="board"
      :aria-label="open?.name ?? 'No dashboard'"
    >
      <RefusalAlert :refusal="refusal ?? (error ? refusalOf(error) : null)" />
      <v-empty-state
        v-if="data && !open"
        class="sheet"
        title="No dashboard yet"
        text="Figures of a form stand at Collect, under “Figures”: put some of them on a dashboard there."
      />
      <template v-if="open">
        <div class="row-flex">
          <h2>{{ open.name }}</h2>
          <span
            v-if="open.isShared"
            class="quiet small"
            >shared{{ open.isOwn ? '' : ` by ${open.by}` }}</span
          >
          <span class="spread" />
          <v-btn
            v-if="open.isOwn"
            class="unprinted"
            @click="beginNaming"
            >Change …</v-btn
          >
          <IconButton
            class="unprinted"
            :icon="mdiPrinterOutline"
            name="Print"
            @click="print"
          />
        </div>
        <p
          v-if="open.hidden > 0"
          class="quiet small"
        >
          {{ counted(open.hidden, 'figure') }} of forms whose responses you may not see
          {{ open.hidden === 1 ? 'is' : 'are' }} left out.
        </p>
        <div class="grid">
          <TileCard
            v-for="(t, i) in open.tiles"
            :key="`${open.id} ${t.form} ${t.figure} ${i}`"
            :tile="t"
            :summary-of="summaryOf"
            :is-own="open.isOwn"
            :is-first="i === 0"
            :is-last="i === open.tiles.length - 1"
            @move="move(i, $event)"
            @take-off="takeOff(i)"
          />
        </div>
      </template>
    </section>
    <PlainDialog
      v-if="isNaming"
      title="Change the dashboard"
      :width="440"
      @close="isNaming = false"
    >
      <LabelledField
        v-model="name"
        label="Name"
        required
      />
      <v-checkbox
        v-model="isShared"
        label="For everybody who sees the responses of one of its forms"
      />
      <template #actions>
        <v-btn
          class="fault"
          :disabled="busy"
          @click="remove"
          >Delete it</v-btn
        >
        <span class="spread" />
        <v-btn @click="isNaming = false">Leave it</v-btn>
        <v-btn
          variant="flat"
          color="primary"
          :disabled="busy || name.trim() === ''"
          @click="rename"
          >Keep it</v-btn
        >
      </template>
    </PlainDialog>
  </div>
</template>

<style scoped>
.boards {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
}
nav {
  border-right: 1px solid var(--line);
  padding: 14px 12px;
}
nav h2 {
  font-size: 13px;
  margin: 0 8px 2px;
}
nav .v-list {
  background: none;
  padding: 0;
}
.board {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 400px), 1fr));
  gap: 12px;
}
@media (max-width: 900px) {
  .boards {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .boards {
    display: block;
  }
  nav,
  .unprinted,
  .boards :deep(.v-btn--icon) {
    display: none;
  }
}
</style>
