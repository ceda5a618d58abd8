<script setup lang="ts">
import { mdiDownload, mdiPrinterOutline } from '@mdi/js'
import { betweenEdits, leadEdits, turnEdits } from '#core/map/edits'
import type { MapEdge, MapNode } from '#core/map/graph'
import { drawMapSvg } from '#core/map/svg'
import { GIVEN_TITLES } from '#core/form/givenTitles'
import { download } from '~/browser/download'
import { useFormMap } from '~/composables/map/useFormMap'

/** The form as a map of its sections, or of its turns: to find one's way, and to write where sections lead. */
const draft = useDraft()
const map = useFormMap()
const { view, drawn, refusal, isCollapsed, inLanes, lengths, edgeWords, nodeWords } = map
const VIEWS = [
  { value: 'sections', title: 'Sections' },
  { value: 'turns', title: 'Turns' },
] as const
const asList = ref(false)
const search = ref('')
/** What is looked at: a node or a way of the map. */
const node = ref<MapNode | null>(null)
const edge = ref<MapEdge | null>(null)
watch([view, isCollapsed], () => {
  node.value = null
  edge.value = null
})
function chooseNode(chosen: MapNode) {
  edge.value = null
  node.value = chosen
  if (chosen.kind === 'run') map.openRun(chosen)
  else if (chosen.address) draft.select(chosen.address)
}
const route = useRoute()
/** The row from which the map was opened: its section is looked at, out of its run where it is drawn in one. */
function chooseAsked() {
  const asked = draft.places.find(p => p.address === route.query.at)
  const own = asked && map.graph.value.nodes.find(n => n.sections.includes(asked.section))
  if (!own) return
  draft.select(asked.address)
  if (own.kind === 'run') map.openRun(own)
  else node.value = own
}
watch(drawn, chooseAsked, { once: true })
function chooseEdge(chosen: MapEdge) {
  node.value = null
  edge.value = chosen
}
function lead(from: string, to: string) {
  if (draft.form) draft.edit(leadEdits(map.graph.value, draft.form, from, to))
}
function turn(chosen: MapEdge, to: string) {
  if (draft.form) draft.edit(turnEdits(map.graph.value, draft.form, draft.places, chosen, to))
}
function putBetween(chosen: MapEdge) {
  if (!draft.form) return
  draft.edit(betweenEdits(map.graph.value, draft.form, draft.places, chosen, GIVEN_TITLES.section))
  edge.value = null
}
/** From so many to so many, or only so many. */
const span = (least: number, most: number, noun: string) =>
  least === most ? counted(most, noun) : `${least} to ${counted(most, noun)}`
const lengthWords = computed(() => {
  if (!lengths.value || view.value === 'turns') return ''
  const { shortest, longest } = lengths.value
  const minutes = (seconds: number) => Math.max(1, Math.round(seconds / 60))
  const questions = span(shortest.questions, longest.questions, 'question')
  return `${questions}, about ${span(minutes(shortest.seconds), minutes(longest.seconds), 'minute')}`
})
const partyName = (lane: number) => draft.form?.parties?.[lane]?.name ?? ''
const svg = computed(() => {
  const { graph, layout } = drawn.value ?? {}
  if (!graph || !layout) return ''
  const words = { node: nodeWords, edge: edgeWords, lane: partyName }
  return drawMapSvg(draft.form?.title ?? '', graph, layout, words)
})
const save = () => download(`${draft.form?.code ?? 'form'}-map.svg`, [svg.value], 'image/svg+xml')
const print = () => window.print()
</script>

<template>
  <section
    class="map"
    aria-label="Map"
  >
    <div class="row-flex tools">
      <SegmentedChoice
        v-if="inLanes"
        v-model="view"
        name="What is drawn"
        :options="VIEWS"
      />
      <v-text-field
        v-model="search"
        placeholder="Find a section"
        aria-label="Find a section in the map"
        maxlength="200"
        class="search"
      />
      <label
        v-if="map.mayCollapse.value"
        class="row-flex small"
        ><v-checkbox-btn
          v-model="isCollapsed"
          density="compact"
        />
        straight runs as one</label
      >
      <label class="row-flex small"
        ><v-checkbox-btn
          v-model="asList"
          density="compact"
        />
        as a list</label
      >
      <span class="spread" />
      <span class="small quiet">{{ lengthWords }}</span>
      <IconButton
        :icon="mdiPrinterOutline"
        name="Print the map"
        :disabled="svg === ''"
        @click="print"
      />
      <IconButton
        :icon="mdiDownload"
        name="Save the map as SVG"
        :disabled="svg === ''"
        @click="save"
      />
    </div>
    <RefusalAlert :refusal="refusal" />
    <MapList
      v-if="asList"
      :graph="map.graph.value"
      :search="search"
      :node-words="nodeWords"
      :edge-words="edgeWords"
      @node="chooseNode"
    />
    <ClientOnly v-else-if="drawn">
      <MapCanvas
        :graph="drawn.graph"
        :layout="drawn.layout"
        :search="search"
        :chosen="node?.id ?? edge?.id ?? null"
        :node-words="nodeWords"
        :edge-words="edgeWords"
        :party-name="partyName"
        :is-written="view === 'sections' && draft.canEdit"
        @node="chooseNode"
        @edge="chooseEdge"
        @lead="lead"
        @turn="turn"
      />
    </ClientOnly>
    <v-skeleton-loader
      v-else
      type="image"
      aria-label="The map is being drawn"
    />
    <MapDetails
      v-if="view === 'sections' && (node || edge)"
      :node="node"
      :edge="edge"
      :words="edge ? edgeWords(edge) : ''"
      @between="edge && putBetween(edge)"
      @close="((node = null), (edge = null))"
    />
    <img
      v-if="svg"
      class="printed"
      alt=""
      :src="`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`"
    />
  </section>
</template>

<style scoped>
.map {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  padding: 8px 16px;
  gap: 6px 14px;
  flex-wrap: wrap;
}
.search {
  flex: 0 1 180px;
}
.printed {
  display: none;
}
@media print {
  .printed {
    display: block;
    position: fixed;
    inset: 0;
    width: 100%;
    height: 100%;
    object-fit: contain;
    background: white;
    z-index: 10000;
  }
}
</style>
