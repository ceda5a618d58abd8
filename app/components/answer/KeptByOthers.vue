<script setup lang="ts">
/** Somebody else goes on with the same turn: what to do, before anything is overwritten. */
defineProps<{ by: string }>()
const emit = defineEmits<{ takeOver: []; goOnWithTheirs: [] }>()
</script>

<template>
  <v-alert
    type="warning"
    role="alert"
  >
    <strong>{{ by || 'Somebody else' }} has gone on with this turn meanwhile.</strong>
    What you typed is still on this device, and nothing was overwritten. Whose answers are to stand?
    <div class="row-flex ways">
      <v-btn @click="emit('goOnWithTheirs')">Go on with theirs</v-btn>
      <v-btn @click="emit('takeOver')">Take over with mine</v-btn>
    </div>
  </v-alert>
</template>

<style scoped>
.ways {
  margin-top: 10px;
  gap: 10px;
}
</style>
