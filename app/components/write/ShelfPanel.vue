<script setup lang="ts">
import { BLOCKS, type Block } from '#core/form/blocks'

/** The shelf: ready blocks, put below the selected row. */
const emit = defineEmits<{ close: [] }>()
const script = useScript()
function take(block: Block) {
  script.pasteClip({ tobbinClip: 1, nodes: block.items, lists: [] })
  emit('close')
}
</script>

<template>
  <div
    class="shelf"
    aria-label="Shelf"
    role="group"
    @keydown.esc.stop="emit('close')"
  >
    <v-btn
      v-for="b in BLOCKS"
      :key="b.title"
      variant="plain"
      class="block"
      @click="take(b)"
    >
      <strong>{{ b.title }}</strong><span class="small quiet">{{ b.about }}</span>
    </v-btn>
  </div>
</template>

<style scoped>
.shelf {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 1px;
  background: var(--line);
  border-bottom: 1px solid var(--line);
}
.block {
  display: grid;
  gap: 2px;
  text-align: left;
  border: 0;
  background: var(--paper);
  padding: 8px 14px;
  cursor: pointer;
  font-size: 14px;
}
.block:hover {
  background: var(--verdigris-wash);
}
</style>
