<script setup lang="ts">
import { Handle, Position } from '@vue-flow/core'
import type { MapNode } from '#core/map/graph'
import { NODE } from '#core/map/layout'
import type { MapLight } from '~/composables/map/useMapLights'

/** A section, a run of sections, a turn or the end, as it stands in the map. */
defineProps<{
  node: MapNode
  words: string
  light: MapLight
  isChosen: boolean
  isFaint: boolean
  isWritten: boolean
}>()
</script>

<template>
  <div
    class="step"
    :class="[
      node.kind,
      { taken: light.isTaken, chosen: isChosen, faint: isFaint, lost: light.isUnreachable },
    ]"
    :style="{ width: `${NODE.width}px`, height: `${NODE.height}px` }"
    :title="words"
  >
    <Handle
      type="target"
      :position="Position.Top"
      :connectable="isWritten"
    />
    <div class="name">
      <span class="num quiet">{{ node.number }}</span> {{ node.title }}
    </div>
    <div class="about small">
      <span class="quiet">{{ words }}</span>
      <span
        v-if="light.faults > 0"
        class="fault"
        >{{ counted(light.faults, 'fault') }}</span
      >
      <span
        v-if="light.risks > 0"
        class="risk"
        >{{ counted(light.risks, 'risk') }}</span
      >
    </div>
    <Handle
      v-if="node.kind !== 'end'"
      type="source"
      :position="Position.Bottom"
      :connectable="isWritten"
    />
  </div>
</template>

<style scoped>
.step {
  box-sizing: border-box;
  border: 1px solid var(--slate);
  background: var(--paper);
  color: var(--ink);
  padding: 8px 12px;
  display: grid;
  gap: 2px;
  align-content: center;
}
.name,
.about {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.name {
  font-weight: 600;
}
.about {
  display: flex;
  gap: 8px;
}
.about .quiet {
  flex: 0 1 auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
.run {
  border-style: double;
  border-width: 3px;
}
.end {
  border-radius: 31px;
  text-align: center;
}
.taken {
  background: var(--verdigris-wash);
  border-color: var(--verdigris);
}
.chosen {
  outline: 2px solid var(--verdigris);
}
.faint {
  opacity: 0.35;
}
.lost {
  border-style: dashed;
}
.step :deep(.vue-flow__handle) {
  background: var(--slate);
}
</style>
