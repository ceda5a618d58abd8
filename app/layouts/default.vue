<script setup lang="ts">
const theme = useDesignTheme()
</script>

<template>
  <v-app :theme="theme.name.value">
    <slot />
    <SaidInPassing />
  </v-app>
</template>
