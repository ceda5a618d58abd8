<script setup lang="ts">
/** What an edit was refused for, and what is to be known of the last one. */
const draft = useDraft()
const { notes } = storeToRefs(useScriptNotices())
</script>

<template>
  <RefusalAlert
    class="edge"
    :refusal="draft.refused"
  />
  <v-alert
    v-if="notes.length > 0"
    class="edge"
    type="warning"
    role="status"
  >
    <p
      v-for="n in notes"
      :key="n"
    >
      {{ n }}
    </p>
    <v-btn
      variant="text"
      @click="notes = []"
    >
      Done
    </v-btn>
  </v-alert>
</template>

<style scoped>
.edge {
  border-width: 0 0 1px;
  border-radius: 0;
}
</style>
