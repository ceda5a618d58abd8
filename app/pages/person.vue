<script setup lang="ts">
definePageMeta({ middleware: ['designer'] })
useHead({ title: 'Everything about one person · Tobbin' })
</script>

<template>
  <div>
    <TopBar title="One person" />
    <main class="workspace">
      <AboutPerson />
    </main>
  </div>
</template>

<style scoped>
.workspace {
  max-width: 1080px;
  margin: 0 auto;
  padding: 20px;
}
</style>
