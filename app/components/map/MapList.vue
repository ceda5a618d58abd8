<script setup lang="ts">
import type { MapEdge, MapGraph, MapNode } from '#core/map/graph'

/** The map as a list: each section or turn, and where it leads. */
const props = defineProps<{
  graph: MapGraph
  search: string
  nodeWords: (node: MapNode) => string
  edgeWords: (edge: MapEdge) => string
}>()
const emit = defineEmits<{ node: [node: MapNode] }>()
const shown = computed(() => {
  const words = props.search.trim().toLowerCase()
  return props.graph.nodes.filter(
    n => n.kind !== 'end' && `${n.number} ${n.title}`.toLowerCase().includes(words),
  )
})
const exitsOf = (node: MapNode) => props.graph.edges.filter(e => e.from === node.id)
const titleOf = (id: string) => props.graph.nodes.find(n => n.id === id)?.title ?? ''
</script>

<template>
  <ol class="list">
    <li
      v-for="n in shown"
      :key="n.id"
    >
      <v-btn
        variant="text"
        @click="emit('node', n)"
      >
        {{ n.number }} {{ n.title }} </v-btn
      ><span class="small quiet">{{ nodeWords(n) }}</span>
      <ul>
        <li
          v-for="e in exitsOf(n)"
          :key="e.id"
          class="small"
        >
          on to <strong>{{ titleOf(e.to) }}</strong> {{ edgeWords(e) }}
        </li>
      </ul>
    </li>
  </ol>
</template>

<style scoped>
.list {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 6px 20px 40px;
  list-style: none;
}
.list > li > span {
  margin-left: 8px;
}
.list ul {
  margin: 0 0 8px;
  padding-left: 34px;
}
</style>
