<script setup lang="ts">
/** Full width: one rehearsal, or two widths side by side with the same answers. */
const two = ref(false)
</script>

<template>
  <div class="stage-rehearse" :class="{ two }">
    <RehearsalPane large />
    <RehearsalPane v-if="two" />
    <button class="text-button side" @click="two = !two">{{ two ? 'One width' : 'Two widths side by side' }}</button>
  </div>
</template>

<style scoped>
.stage-rehearse { height: 100%; display: grid; grid-template-columns: minmax(0, 1fr); position: relative; }
.two { grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr); }
.side { position: absolute; left: 16px; bottom: 12px; background: var(--linen); padding: 4px 8px; }
</style>
