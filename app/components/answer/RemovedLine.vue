<script setup lang="ts">
/** What was removed last, and the way back. */
defineProps<{ name: string }>()
const emit = defineEmits<{ undo: [] }>()
</script>

<template>
  <p
    class="small"
    role="status"
  >
    “{{ name }}” is removed.
    <v-btn
      variant="text"
      class="undo"
      @click="emit('undo')"
    >
      Undo
    </v-btn>
  </p>
</template>
