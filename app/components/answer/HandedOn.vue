<script setup lang="ts">
import type { ResponseLine } from '#core/fill/describeResponse'

/** A turn that was handed on, or given back to an earlier one: its answers, to be read. */
defineProps<{ lines: readonly ResponseLine[]; givenBackTo: string | null }>()
</script>

<template>
  <template v-if="givenBackTo">
    <h1 tabindex="-1">Given back to {{ givenBackTo }}</h1>
    <p>
      This link opens again when it is your turn, with what you had filled. These are the answers handed on so
      far.
    </p>
  </template>
  <template v-else>
    <h1 tabindex="-1">Handed on</h1>
    <p>This part was handed on and can’t be changed any more. These are the answers.</p>
  </template>
  <AnswerLines :lines="lines.filter(l => l.state !== 'unasked')" />
</template>

<style scoped>
h1:focus {
  outline: none;
}
</style>
