<script setup lang="ts">
/** The head of a page that is printed: its title, and the button to print it, which is not. */
defineProps<{ title: string }>()
const print = () => window.print()
</script>

<template>
  <div class="row-flex">
    <h1>{{ title }}</h1>
    <span class="spread" />
    <v-btn
      class="unprinted"
      variant="flat"
      color="primary"
      @click="print"
      >Print…</v-btn
    >
  </div>
</template>

<style scoped>
h1 {
  font-size: 22px;
}
@media print {
  .unprinted {
    display: none;
  }
}
</style>
