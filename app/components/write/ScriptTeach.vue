<script setup lang="ts">
/** What an empty script says: how to begin. */
const emit = defineEmits<{ begin: [] }>()
</script>

<template>
  <v-empty-state
    class="teach"
    title="Begin to type"
  >
    <template #text>
      Select the section above and press <kbd>Enter</kbd>. Every line is a question; <kbd>Enter</kbd> goes on
      to the next, <kbd>/</kbd> chooses its type. A pasted outline or spreadsheet becomes questions.
    </template>
    <template #actions>
      <v-btn
        variant="flat"
        color="primary"
        @click="emit('begin')"
      >
        Type the first question
      </v-btn>
    </template>
  </v-empty-state>
</template>

<style scoped>
.teach {
  padding: 40px 104px;
}
</style>
