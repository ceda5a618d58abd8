<script setup lang="ts">
/** One response on paper. */
definePageMeta({ middleware: 'designer', layout: 'quiet' })
const id = String(useRoute().params.response)
const title = ref('Response')
useHead({ title })
</script>

<template>
  <main>
    <PrintedResponse
      :id="id"
      @ready="title = $event"
    />
  </main>
</template>
