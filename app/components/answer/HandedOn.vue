<script setup lang="ts">
import type { ResponseLine } from '#core/fill/describeResponse'

/** A turn that was handed on: its answers, to be read. */
defineProps<{ lines: readonly ResponseLine[] }>()
</script>

<template>
  <h1 tabindex="-1">Handed on</h1>
  <p>This part was handed on and can’t be changed any more. These are the answers.</p>
  <AnswerLines :lines="lines.filter(l => l.state !== 'unasked')" />
</template>

<style scoped>
h1:focus {
  outline: none;
}
</style>
