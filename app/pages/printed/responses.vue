<script setup lang="ts">
/** Several responses on paper, each from a new page on. */
definePageMeta({ middleware: 'designer', layout: 'quiet' })
const MOST = 50
const asked = String(useRoute().query.ids ?? '').split(',')
const ids = asked.filter(id => /^[0-9a-f-]{36}$/.test(id)).slice(0, MOST)
useHead({ title: counted(ids.length, 'response') })
</script>

<template>
  <main>
    <v-empty-state
      v-if="ids.length === 0"
      title="No response was chosen"
      text="Select responses in Collect, and print them from there."
    />
    <PrintedResponse
      v-for="id in ids"
      :id="id"
      :key="id"
    />
  </main>
</template>
