<script setup lang="ts">
definePageMeta({ middleware: ['designer', 'admin'] })
useHead({ title: 'People · Tobbin' })
const route = useRoute()
const VIEWS = [
  { key: 'people', title: 'People' },
  { key: 'teams', title: 'Teams' },
  { key: 'workspace', title: 'Workspace' },
  { key: 'record', title: 'Record' },
  { key: 'post', title: 'Post' },
  { key: 'outside', title: 'World outside' },
] as const
const view = computed({
  get: () => VIEWS.find(v => v.key === route.query.view)?.key ?? 'people',
  set: (key: string) => void navigateTo({ query: { view: key } }),
})
</script>

<template>
  <div>
    <TopBar title="People" />
    <main class="workspace">
      <v-tabs
        v-model="view"
        aria-label="People, teams and what happened"
      >
        <v-tab
          v-for="v in VIEWS"
          :key="v.key"
          :value="v.key"
          >{{ v.title }}</v-tab
        >
      </v-tabs>
      <Suspense>
        <PeopleTable v-if="view === 'people'" />
        <TeamList v-else-if="view === 'teams'" />
        <WorkspacePart v-else-if="view === 'workspace'" />
        <RecordTable v-else-if="view === 'record'" />
        <PostList v-else-if="view === 'post'" />
        <WorldOutside v-else />
        <template #fallback><v-skeleton-loader type="table-tbody" /></template>
      </Suspense>
    </main>
  </div>
</template>

<style scoped>
.workspace {
  max-width: 1080px;
  margin: 0 auto;
  padding: 20px;
  display: grid;
  gap: 20px;
}
</style>
