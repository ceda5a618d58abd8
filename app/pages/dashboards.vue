<script setup lang="ts">
definePageMeta({ middleware: ['designer'] })
useHead({ title: 'Dashboards · Tobbin' })
</script>

<template>
  <div class="page">
    <TopBar title="Dashboards" />
    <main>
      <Suspense>
        <DashboardsPane />
        <template #fallback><v-skeleton-loader type="heading, image@2" /></template>
      </Suspense>
    </main>
  </div>
</template>
