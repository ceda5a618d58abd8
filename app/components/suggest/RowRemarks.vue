<script setup lang="ts">
/** What is remarked on one row, in the row itself. */
const props = defineProps<{ about: string }>()
const suggestions = useSuggestions()
const open = computed(() => suggestions.all.open.filter(s => s.about === props.about))
</script>

<template>
  <ul
    v-if="open.length > 0"
    class="row-remarks"
  >
    <SuggestionCard
      v-for="s in open"
      :key="s.id"
      :suggestion="s"
      is-at-row
    />
  </ul>
</template>

<style scoped>
.row-remarks {
  padding: 6px 16px 6px 104px;
  background: var(--paper);
  display: grid;
  gap: 8px;
}
</style>
