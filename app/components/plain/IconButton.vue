<script setup lang="ts">
/** An action that recurs, as an icon: its name is told on hovering, and to assistive technology. */
defineProps<{ icon: string; name: string; keys?: string }>()
</script>

<template>
  <v-btn
    icon
    variant="text"
    :aria-label="name"
  >
    <v-icon :icon="icon" />
    <v-tooltip
      :aria-label="name"
      activator="parent"
      location="bottom"
      >{{ name }} <kbd v-if="keys">{{ keys }}</kbd></v-tooltip
    >
  </v-btn>
</template>
