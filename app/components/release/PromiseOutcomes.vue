<script setup lang="ts">
import type { PromiseLine } from '~/workers/effects.worker'

/** What becomes of the promises that the earlier version keeps: first those that hold no more, each with answers that break it. */
const props = defineProps<{ promises: readonly PromiseLine[] }>()
const lost = computed(() => props.promises.filter(p => p.outcome !== 'kept'))
const kept = computed(() => props.promises.length - lost.value.length)
</script>

<template>
  <h3>Promises</h3>
  <ul v-if="lost.length > 0">
    <li
      v-for="(line, i) in lost"
      :key="i"
    >
      <span :class="line.outcome === 'broken' ? 'fault' : 'risk'">{{
        line.outcome === 'broken' ? '✕' : '▲'
      }}</span>
      {{ line.sentence }}
      <ShownWith
        v-if="line.outcome === 'broken'"
        :answers="line.answers"
      />
    </li>
  </ul>
  <p
    v-if="kept > 0"
    class="proven small"
  >
    ✓ {{ counted(kept, 'promise') }} that held {{ kept === 1 ? 'is' : 'are' }} kept as before, decided for all
    possible answers.
  </p>
</template>

<style scoped>
h3 {
  font-size: 15px;
  margin: 16px 0 6px;
}
ul {
  display: grid;
  gap: 8px;
  margin-bottom: 6px;
}
</style>
