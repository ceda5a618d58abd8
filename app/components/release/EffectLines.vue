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
      <p
        v-if="line.outcome === 'differs'"
        class="small quiet"
      >
        <template v-if="line.answers.length > 0">
          With
          <span
            v-for="(answer, at) in line.answers"
            :key="at"
            >{{ at > 0 ? ', ' : '' }}{{ answer.label }} <strong>{{ answer.text }}</strong></span
          >
        </template>
        <template v-else>With no answer at all</template>
      </p>
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
p {
  padding-left: 12px;
}
</style>
