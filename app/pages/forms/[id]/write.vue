<script setup lang="ts">
/** Writing: the script, the rulebook or the history on one side, the rehearsal on the other. */
const route = useRoute()
const draft = useDraft()
const suggestions = useSuggestions()
const waiting = computed(() => suggestions.all.open.length)
const tabs = computed(
  () =>
    [
      { key: 'script', words: 'Script' },
      { key: 'map', words: 'Map' },
      { key: 'lists', words: 'Lists' },
      { key: 'parties', words: 'Parties' },
      { key: 'deliveries', words: 'By itself' },
      { key: 'documents', words: 'Documents' },
      { key: 'rulebook', words: 'Rulebook' },
      { key: 'suggestions', words: waiting.value > 0 ? `Suggestions (${waiting.value})` : 'Suggestions' },
      { key: 'history', words: 'History' },
      { key: 'settings', words: 'Settings' },
    ] as const,
)
const tab = computed(() => tabs.value.find(t => t.key === route.query.view)?.key ?? 'script')
function show(view: unknown) {
  if (view !== tab.value) void navigateTo({ query: view === 'script' ? {} : { view: String(view) } })
}
</script>

<template>
  <div
    class="panes"
    :class="{ wide: tab === 'lists' || tab === 'parties' || tab === 'map' }"
  >
    <div class="left">
      <div class="tabs">
        <v-tabs
          :model-value="tab"
          aria-label="Views of the draft"
          @update:model-value="show"
        >
          <v-tab
            v-for="t in tabs"
            :key="t.key"
            :value="t.key"
            >{{ t.words }}</v-tab
          >
        </v-tabs>
      </div>
      <RulebookPane v-if="tab === 'rulebook'" />
      <LazyMapPane v-else-if="tab === 'map'" />
      <ListsPane v-else-if="tab === 'lists'" />
      <SuggestionsPane v-else-if="tab === 'suggestions'" />
      <Suspense v-else-if="tab === 'history'">
        <HistoryPane />
        <template #fallback>
          <v-skeleton-loader
            type="list-item@8"
            aria-label="The history is being fetched"
          />
        </template>
      </Suspense>
      <PartiesPane v-else-if="tab === 'parties'" />
      <fieldset
        v-else-if="tab === 'deliveries'"
        class="readable"
        :disabled="!draft.canEdit"
      >
        <DeliveriesPane />
      </fieldset>
      <fieldset
        v-else-if="tab === 'documents'"
        class="readable"
        :disabled="!draft.canEdit"
      >
        <LazyDocumentsPane />
      </fieldset>
      <fieldset
        v-else-if="tab === 'settings'"
        class="readable"
        :disabled="!draft.canEdit"
      >
        <FormSettings />
      </fieldset>
      <ScriptPane
        v-else
        class="grow"
      />
    </div>
    <RehearsalPane />
  </div>
</template>

<style scoped>
.panes {
  display: grid;
  grid-template-columns: minmax(0, 1.42fr) minmax(340px, 1fr);
  height: 100%;
}
.panes.wide {
  grid-template-columns: minmax(0, 2.3fr) minmax(340px, 1fr);
}
.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid var(--line);
}
.tabs {
  display: flex;
  gap: 16px;
  align-items: center;
  height: 40px;
  padding: 0 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
.tabs :deep(.v-tab) {
  padding: 0 8px;
}
.grow {
  flex: 1;
}
@media (max-width: 800px) {
  .panes {
    grid-template-columns: 1fr;
    height: auto;
  }
}
</style>
