<script setup lang="ts">
/** That this turn was begun on another device or by somebody else. */
const props = defineProps<{ at: string; by: string }>()
const words = computed(() => `${readableDay(props.at)}, ${readableTime(props.at)}`)
</script>

<template>
  <v-alert
    type="info"
    role="status"
  >
    <strong>This turn was begun elsewhere.</strong>
    It was kept on {{ words }}{{ by ? ` by ${by}` : '' }}, and you go on from there. If somebody else still
    types as well, neither overwrites the other unseen.
  </v-alert>
</template>
