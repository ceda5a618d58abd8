<script setup lang="ts">
/** What is there for those who look: a line that unfolds. */
defineProps<{ title: string }>()
</script>

<template>
  <v-expansion-panels
    class="folded"
    variant="accordion"
    static
    flat
  >
    <v-expansion-panel :title="title">
      <template #text><slot /></template>
    </v-expansion-panel>
  </v-expansion-panels>
</template>
