<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import { API } from '#shared/api/endpoints'
import type { KeptView } from '#shared/api/workbench'
import { callApi } from '~/api/callApi'
import type { CollectMode } from '~/stores/collect'

/** What there is to look at: kept views, the trays with how many stand in each, and the bin. */
const props = defineProps<{ all: number | null; hasTurns: boolean }>()
const collect = useCollect()
const draft = useDraft()
const { refusal, attempt } = useRefusable()
const keeping = ref<{ view: KeptView | null } | null>(null)
const isSettingUp = ref(false)
const bench = computed(() => collect.workbench)
const isAll = computed(() => collect.mode === 'table' && !collect.view && !collect.isNarrowed)
const isTray = (tray: string) =>
  collect.mode === 'table' && collect.view === null && collect.filter.tray === tray
const isBin = computed(() => collect.mode === 'table' && collect.filter.state === 'binned')
function show(view: KeptView | null) {
  collect.mode = 'table'
  collect.selected = []
  collect.show(view)
}
function showTray(tray: string) {
  show(null)
  collect.set({ tray })
}
function showBin() {
  show(null)
  collect.set({ state: 'binned' })
}
function showMode(mode: CollectMode) {
  collect.selected = []
  collect.mode = mode
}
const forget = (view: KeptView) =>
  attempt(async () => {
    await callApi(API.deleteView, { params: { id: collect.form, view: view.id } })
    if (collect.view?.id === view.id) collect.view = null
    await collect.refresh()
  })
const countOf = (view: KeptView) => (view.count === null ? '' : `${view.count}`)
const allCount = computed(() => (props.all === null ? '' : `${props.all}`))
</script>

<template>
  <nav
    class="views"
    aria-label="What is looked at"
  >
    <h2>Views</h2>
    <v-list density="compact">
      <v-list-item
        :active="isAll"
        @click="show(null)"
      >
        All responses<template #append
          ><span class="num">{{ allCount }}</span></template
        >
      </v-list-item>
      <v-list-item
        v-if="hasTurns"
        :active="collect.mode === 'progress'"
        @click="showMode('progress')"
        >In progress</v-list-item
      >
      <v-list-item
        v-for="v in bench?.views ?? []"
        :key="v.id"
        :active="collect.mode === 'table' && collect.view?.id === v.id"
        :title="v.name"
        :subtitle="v.isOwn ? undefined : v.by"
        @click="show(v)"
      >
        <template #append
          ><span class="num">{{ countOf(v) }}</span
          ><v-menu v-if="v.isOwn">
            <template #activator="{ props: opens }">
              <IconButton
                v-bind="opens"
                :icon="mdiDotsVertical"
                :name="`More for ${v.name}`"
                @click.stop
              />
            </template>
            <v-list>
              <v-list-item
                title="Keep as it is now …"
                @click="keeping = { view: v }"
              />
              <v-list-item
                title="Delete"
                @click="forget(v)"
              />
            </v-list> </v-menu
        ></template>
      </v-list-item>
    </v-list>
    <v-btn
      variant="text"
      @click="keeping = { view: null }"
      >+ keep this view</v-btn
    >
    <RefusalAlert :refusal="refusal" />
    <h2>Trays</h2>
    <v-list
      v-if="bench && bench.trays.length > 0"
      density="compact"
    >
      <v-list-item
        :active="collect.mode === 'trays'"
        @click="showMode('trays')"
        >Side by side</v-list-item
      >
      <v-list-item
        v-for="t in bench.trays"
        :key="t.id"
        :active="isTray(t.id)"
        :title="t.name"
        @click="showTray(t.id)"
      >
        <template #append
          ><span class="num">{{ t.count }}</span></template
        >
      </v-list-item>
      <v-list-item
        :active="isTray('none')"
        title="In no tray"
        @click="showTray('none')"
      >
        <template #append
          ><span class="num">{{ bench.untrayed }}</span></template
        >
      </v-list-item>
    </v-list>
    <v-btn
      v-if="draft.may('act')"
      variant="text"
      @click="isSettingUp = true"
      >{{ bench && bench.trays.length > 0 ? 'Change the trays …' : '+ trays' }}</v-btn
    >
    <h2>Figures</h2>
    <v-list density="compact">
      <v-list-item
        :active="collect.mode === 'figures'"
        @click="showMode('figures')"
        >Question by question</v-list-item
      >
      <v-list-item
        :active="collect.mode === 'cross'"
        @click="showMode('cross')"
        >Crossed</v-list-item
      >
    </v-list>
    <h2>By itself</h2>
    <v-list density="compact">
      <v-list-item
        :active="collect.mode === 'deliveries'"
        @click="showMode('deliveries')"
        >Deliveries<template
          v-if="bench && bench.failing > 0"
          #append
          ><span class="num risk">{{ bench.failing }} not done</span></template
        ></v-list-item
      >
      <v-list-item
        v-if="draft.may('own')"
        :active="collect.mode === 'keys'"
        @click="showMode('keys')"
        >Live addresses and keys</v-list-item
      >
    </v-list>
    <h2>Keeping</h2>
    <v-list density="compact">
      <v-list-item
        :active="collect.mode === 'keeping'"
        @click="showMode('keeping')"
        >How long it is kept</v-list-item
      >
    </v-list>
    <v-list
      v-if="bench && bench.binned > 0"
      density="compact"
      class="bin"
    >
      <v-list-item
        :active="isBin"
        title="Bin"
        @click="showBin"
      >
        <template #append
          ><span class="num">{{ bench.binned }}</span></template
        >
      </v-list-item>
    </v-list>
    <KeepView
      v-if="keeping"
      :view="keeping.view"
      @close="keeping = null"
    />
    <TraysDialog
      v-if="isSettingUp && bench"
      :trays="bench.trays"
      @close="isSettingUp = false"
    />
  </nav>
</template>

<style scoped>
.views {
  border-right: 1px solid var(--line);
  padding: 14px 12px;
  overflow-y: auto;
}
h2 {
  font-size: 13px;
  margin: 12px 8px 2px;
}
h2:first-child {
  margin-top: 0;
}
.v-list {
  background: none;
  padding: 0;
}
.v-list-item {
  min-height: 30px;
  padding: 2px 8px;
  font-size: 13px;
}
.v-list-item :deep(.v-list-item-title) {
  font-size: 13px;
}
.views > .v-btn {
  margin-left: 3px;
}
.bin {
  margin-top: 12px;
}
@media (max-width: 900px) {
  .views {
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
}
</style>
