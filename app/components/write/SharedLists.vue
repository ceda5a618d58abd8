<script setup lang="ts">
/** Lists that the workspace keeps for all forms. */
defineEmits<{ taken: [code: string] }>()
</script>

<template>
  <span />
</template>
