<script setup lang="ts">
import '@vue-flow/core/dist/style.css'
import { MarkerType, VueFlow, useVueFlow, type Connection, type EdgeUpdateEvent } from '@vue-flow/core'
import type { MapEdge, MapGraph, MapNode } from '#core/map/graph'
import { NODE, type MapLayout } from '#core/map/layout'
import { useMapLights } from '~/composables/map/useMapLights'

/** The drawing of a map: moved and enlarged by pointer and keyboard; ways are drawn to where they are to lead. */
const props = defineProps<{
  graph: MapGraph
  layout: MapLayout
  search: string
  chosen: string | null
  nodeWords: (node: MapNode) => string
  edgeWords: (edge: MapEdge) => string
  partyName: (lane: number) => string
  isWritten: boolean
}>()
const emit = defineEmits<{
  node: [node: MapNode]
  edge: [edge: MapEdge]
  lead: [from: string, to: string]
  turn: [edge: MapEdge, to: string]
}>()
const draft = useDraft()
const { fitView, setCenter, setViewport, dimensions, onInit } = useVueFlow('form-map')
const TIP = { type: MarkerType.ArrowClosed, color: 'var(--slate)', width: 12, height: 12 }
const lights = useMapLights(computed(() => props.graph))
const found = computed(() => {
  const words = props.search.trim().toLowerCase()
  if (words === '') return null
  return props.graph.nodes.filter(n => `${n.number} ${n.title}`.toLowerCase().includes(words)).map(n => n.id)
})
const nodes = computed(() => [
  ...props.layout.lanes.map(({ lane, x, width }) => ({
    ...{ id: `lane-${lane}`, type: 'lane', position: { x, y: 0 }, data: { lane }, selectable: false },
    ...{ focusable: false, zIndex: -1, style: { width: `${width}px`, height: `${props.layout.height}px` } },
  })),
  ...props.graph.nodes.map(node => ({
    id: node.id,
    type: 'step',
    position: props.layout.nodes[node.id] ?? { x: 0, y: 0 },
    data: { node },
    ariaLabel: `${node.number} ${node.title}, ${props.nodeWords(node)}`,
  })),
])
const edges = computed(() =>
  props.graph.edges.map(edge => ({
    id: edge.id,
    source: edge.from,
    target: edge.to,
    type: 'way',
    markerEnd: TIP,
    updatable: props.isWritten ? ('target' as const) : false,
    data: { edge, drawn: props.layout.edges[edge.id] },
    ariaLabel: props.edgeWords(edge) || 'to the next',
  })),
)
const nodeAt = (id: string) => props.graph.nodes.find(n => n.id === id)
function chooseNode(id: string) {
  const node = nodeAt(id)
  if (node && node.kind !== 'end') emit('node', node)
}
const connect = ({ source, target }: Connection) => emit('lead', source, target)
function update({ edge, connection }: EdgeUpdateEvent) {
  const own = props.graph.edges.find(e => e.id === edge.id)
  if (own) emit('turn', own, connection.target)
}
/** Whether one node comes before another: ways lead only forward. */
function leadsOn({ source, target }: Connection): boolean {
  const at = (id: string) => props.graph.nodes.findIndex(n => n.id === id)
  return at(source) < at(target)
}
function choose(event: KeyboardEvent) {
  const at = event.target instanceof HTMLElement ? event.target.closest('.vue-flow__node') : null
  const id = at?.getAttribute('data-id')
  if (id && event.key === 'Enter') chooseNode(id)
}
/** Goes to a node, at a size at which it can be read. */
function goTo(id: string) {
  const at = props.layout.nodes[id]
  if (at) void setCenter(at.x + NODE.width / 2, at.y + NODE.height / 2, { zoom: 1, duration: 200 })
}
watch(found, ids => {
  const [first] = ids ?? []
  if (first !== undefined) goTo(first)
})
/** At this size at least a map is shown at first: what is beneath is read by moving. */
const READABLE = 0.7
const MARGIN = 20
/** Begins at the top, as wide as there is room. */
function showTop() {
  const { width } = props.layout
  const room = dimensions.value.width - 2 * MARGIN
  const zoom = Math.max(READABLE, Math.min(1, room / width))
  const x = Math.max(MARGIN, (dimensions.value.width - width * zoom) / 2)
  void setViewport({ x, y: MARGIN, zoom })
}
onInit(() => {
  const selected = draft.places.find(p => p.address === draft.selected)
  const own = selected && props.graph.nodes.find(n => n.sections.includes(selected.section))
  if (own && own.sections[0] !== 0 && props.layout.height > 1500) goTo(own.id)
  else if (props.layout.height < 500) void fitView({ padding: 0.1, maxZoom: 1 })
  else showTop()
})
</script>

<template>
  <div
    class="canvas"
    @keydown="choose"
  >
    <VueFlow
      id="form-map"
      :nodes="nodes"
      :edges="edges"
      :min-zoom="0.08"
      :max-zoom="2"
      :nodes-draggable="false"
      :nodes-connectable="isWritten"
      :delete-key-code="null"
      :is-valid-connection="leadsOn"
      pan-on-scroll
      @node-click="chooseNode($event.node.id)"
      @edge-click="emit('edge', $event.edge.data.edge)"
      @connect="connect"
      @edge-update="update"
    >
      <template #node-step="{ data }">
        <MapStep
          :node="data.node"
          :words="nodeWords(data.node)"
          :light="lights.of(data.node)"
          :is-chosen="chosen === data.node.id"
          :is-faint="found !== null && !found.includes(data.node.id)"
          :is-written="isWritten"
        />
      </template>
      <template #node-lane="{ data }">
        <div class="lane">{{ partyName(data.lane) }}</div>
      </template>
      <template #edge-way="way">
        <MapWay
          :id="way.id"
          :edge="way.data.edge"
          :drawn="way.data.drawn"
          :words="edgeWords(way.data.edge)"
          :tip="way.markerEnd"
          :is-lit="lights.isTaken(way.data.edge)"
          :is-chosen="chosen === way.id"
          @choose="emit('edge', way.data.edge)"
        />
      </template>
    </VueFlow>
  </div>
</template>

<style scoped>
.canvas {
  flex: 1;
  min-height: 240px;
}
.lane {
  width: 100%;
  height: 100%;
  border: 1px solid var(--line);
  padding: 6px 12px;
  color: var(--slate);
  font-size: 14px;
  font-weight: 600;
  box-sizing: border-box;
}
.canvas :deep(.vue-flow__node) {
  cursor: pointer;
}
.canvas :deep(.vue-flow__node-lane) {
  pointer-events: none !important;
}
.canvas :deep(.vue-flow__node:focus-visible) {
  outline: 3px solid var(--woad);
  outline-offset: 2px;
}
</style>
