<script setup lang="ts">
import { BaseEdge, EdgeLabelRenderer } from '@vue-flow/core'
import type { MapEdge } from '#core/map/graph'
import type { MapLayout } from '#core/map/layout'
import { isDashed, pathThrough } from '#core/map/svg'

/** A way of the map, with its condition as a sentence. */
const props = defineProps<{
  id: string
  edge: MapEdge
  drawn: MapLayout['edges'][string] | undefined
  words: string
  isLit: boolean
  isChosen: boolean
  /** The tip of its arrow. */
  tip: string
}>()
const emit = defineEmits<{ choose: [] }>()
const path = computed(() => pathThrough(props.drawn?.points ?? []))
</script>

<template>
  <BaseEdge
    :id="id"
    :path="path"
    :interaction-width="14"
    :style="{
      stroke: isLit || isChosen ? 'var(--verdigris)' : 'var(--slate)',
      strokeWidth: isLit || isChosen ? 2 : 1,
      strokeDasharray: isDashed(edge) ? '5 4' : undefined,
    }"
    :marker-end="tip"
  />
  <EdgeLabelRenderer v-if="words && drawn">
    <v-btn
      variant="text"
      class="words nodrag nopan"
      :class="{ on: isChosen, lit: isLit }"
      :style="{ transform: `translate(-50%, -50%) translate(${drawn.label.x}px, ${drawn.label.y}px)` }"
      :title="words"
      @click="emit('choose')"
    >
      {{ words }}
    </v-btn>
  </EdgeLabelRenderer>
</template>

<style scoped>
.words {
  position: absolute;
  pointer-events: all;
  max-width: 170px;
  max-height: 32px;
  overflow: hidden;
  font-size: 12px;
  height: auto;
  padding: 0 4px;
  background: var(--linen);
  color: var(--slate);
  cursor: pointer;
}
.words :deep(.v-btn__content) {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  white-space: normal;
  overflow: hidden;
  line-height: 1.3;
  text-align: center;
}
.words.lit {
  color: var(--verdigris);
}
.words.on,
.words:hover {
  color: var(--ink);
  text-decoration: underline;
}
</style>
