<script setup lang="ts">
import type { ClosingMessage } from '#core/fill/closing'

/** What a respondent reads after sending. */
defineProps<{ closing: ClosingMessage }>()
const emit = defineEmits<{ back: [] }>()
</script>

<template>
  <h2>All answered</h2>
  <p class="quiet">A respondent would now check the answers and send them. Then the page says:</p>
  <div class="said">
    <strong>{{ closing.title }}</strong>
    <p>{{ closing.text }}</p>
    <p
      v-if="closing.forward"
      class="small quiet"
    >
      and goes on to <code>{{ closing.forward }}</code>
    </p>
  </div>
  <div class="row-flex foot">
    <v-btn @click="emit('back')"> Back </v-btn>
  </div>
</template>

<style scoped>
.said {
  border-left: 1px solid var(--line);
  padding-left: 12px;
  margin-top: 12px;
  white-space: pre-line;
}
.foot {
  margin-top: 28px;
}
</style>
