<script setup lang="ts">
const theme = useDesignTheme()
</script>

<template>
  <v-app
    :theme="theme.name.value"
    class="respondent"
  >
    <slot />
  </v-app>
</template>
