<script setup lang="ts">
import { useTurns } from '~/composables/write/useTurns'

/** Who takes part in a response: the parties, their turns in order, and what each fills, reads and never sees. */
const { turns, parties } = useTurns()
const at = ref(0)
watch(turns, now => {
  at.value = Math.max(0, Math.min(at.value, now.length - 1))
})
</script>

<template>
  <section
    class="parties"
    aria-label="Parties and turns"
  >
    <template v-if="parties.length > 0">
      <TurnStrip v-model:at="at" />
      <TurnEditor v-model:at="at" />
      <AccessMatrix v-if="turns.length > 0" />
    </template>
    <h2>Parties</h2>
    <PartiesEditor />
  </section>
</template>

<style scoped>
.parties {
  display: grid;
  gap: 14px;
  align-content: start;
  grid-auto-rows: max-content;
  padding: 18px 20px 60px;
  overflow-y: auto;
  flex: 1;
  min-height: 0;
}
h2 {
  font-size: 15px;
}
</style>
