<script setup lang="ts">
/** That answers to an earlier version of the form are still on this device. */
defineProps<{ link: string }>()
</script>

<template>
  <v-alert
    type="info"
    role="status"
  >
    <p>
      <strong>You have begun an earlier version of this form.</strong>
      What you filled is kept on this device.
      <a :href="`/f/${link}`">Go on with what you began</a>, or begin this one.
    </p>
  </v-alert>
</template>
