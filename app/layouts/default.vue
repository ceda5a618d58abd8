<script setup lang="ts">
const theme = useDesignTheme()
</script>

<template>
  <v-app :theme="theme.name.value">
    <NuxtLoadingIndicator
      color="var(--verdigris)"
      :height="2"
    />
    <slot />
    <SaidInPassing />
  </v-app>
</template>
