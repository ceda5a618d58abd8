<script setup lang="ts">
/** What an empty script says: how to begin. */
const emit = defineEmits<{ begin: [] }>()
</script>

<template>
  <div class="teach">
    <h2>Begin to type</h2>
    <p>
      Select the section above and press <kbd>Enter</kbd>. Every line is a question; <kbd>Enter</kbd> goes on
      to the next, <kbd>/</kbd> chooses its type. A pasted outline or spreadsheet becomes questions.
    </p>
    <v-btn
      variant="flat"
      color="primary"
      @click="emit('begin')"
    >
      Type the first question
    </v-btn>
  </div>
</template>

<style scoped>
.teach {
  padding: 40px 104px;
  display: grid;
  gap: 12px;
  justify-items: start;
  max-width: 46ch;
}
</style>
