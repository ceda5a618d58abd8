<script setup lang="ts">
import type { ClosingMessage } from '#core/fill/closing'

/** What is said when a response was sent. */
defineProps<{ message: ClosingMessage; canRepeat: boolean }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <h1 tabindex="-1">{{ message.title }}</h1>
  <p class="text">{{ message.text }}</p>
  <GoingOn
    v-if="message.forward"
    :address="message.forward"
  />
  <div v-else-if="canRepeat">
    <v-btn
      class="big"
      @click="emit('again')"
    >
      Answer once more
    </v-btn>
  </div>
</template>

<style scoped>
.text {
  white-space: pre-line;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
h1:focus {
  outline: none;
}
</style>
