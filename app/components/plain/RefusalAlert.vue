<script setup lang="ts">
import type { Refusal } from '#shared/api/refusal'

/** What was refused and why, with the place of each problem where places help. Nothing stands there without a refusal. */
const props = defineProps<{ refusal: Refusal | string | null | undefined; places?: boolean }>()
const sentence = computed(() => (typeof props.refusal === 'object' ? props.refusal?.sentence : props.refusal))
const problems = computed(() => (typeof props.refusal === 'object' ? props.refusal?.problems : undefined))
</script>

<template>
  <v-alert
    v-if="sentence"
    type="error"
  >
    {{ sentence }}
    <ul
      v-if="problems"
      class="small"
    >
      <li
        v-for="(p, i) in problems"
        :key="i"
      >
        <code v-if="places">{{ p.path || 'the whole' }}</code> {{ p.sentence }}
      </li>
    </ul>
  </v-alert>
</template>

<style scoped>
ul {
  max-height: 240px;
  overflow-y: auto;
  color: var(--ink);
}
</style>
