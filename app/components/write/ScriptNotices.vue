<script setup lang="ts">
/** What an edit was refused for, and what is to be known of the last one. */
const draft = useDraft()
const { notes } = storeToRefs(useScriptNotices())
</script>

<template>
  <p
    v-if="draft.refused"
    class="refused fault small"
    role="alert"
  >
    {{ draft.refused }}
  </p>
  <div
    v-if="notes.length > 0"
    class="refused risk small"
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
  </div>
</template>

<style scoped>
.refused {
  padding: 6px 16px;
  background: var(--madder-wash);
  flex: none;
}
.refused.risk {
  background: var(--weld-wash);
}
</style>
