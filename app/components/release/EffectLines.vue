<script setup lang="ts">
import type { EffectLine } from '~/workers/effects.worker'

/** What a version does otherwise than the one before, each with the fewest answers that show it. */
defineProps<{ lines: readonly EffectLine[] }>()
const emit = defineEmits<{ go: [address: EffectLine['address']] }>()
const draft = useDraft()
const there = computed(() => new Set(draft.places.map(p => p.address)))
</script>

<template>
  <ul>
    <li
      v-for="(line, i) in lines"
      :key="i"
    >
      <v-btn
        v-if="there.has(line.address)"
        variant="text"
        class="sentence"
        @click="emit('go', line.address)"
        >{{ line.sentence }}</v-btn><span v-else>{{ line.sentence }}</span>
      <ShownWith
        v-if="line.outcome === 'differs'"
        :answers="line.answers"
      />
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 8px;
}
.sentence {
  white-space: normal;
  text-align: left;
  height: auto;
  padding: 0;
  min-width: 0;
}
</style>
