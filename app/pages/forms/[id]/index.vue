<script setup lang="ts">
definePageMeta({ middleware: ['designer', to => navigateTo(`${to.path.replace(/\/$/, '')}/write`)] })
</script>

<template><div /></template>
