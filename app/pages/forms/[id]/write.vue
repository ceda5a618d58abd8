<script setup lang="ts">
/** Writing: the script, the rulebook or the history on one side, the rehearsal on the other. */
const route = useRoute()
const draft = useDraft()
const TABS = [
  { key: 'script', words: 'Script' },
  { key: 'lists', words: 'Lists' },
  { key: 'parties', words: 'Parties' },
  { key: 'rulebook', words: 'Rulebook' },
  { key: 'history', words: 'History' },
  { key: 'settings', words: 'Settings' },
] as const
const tab = computed(() => TABS.find(t => t.key === route.query.view)?.key ?? 'script')
const sections = computed(() => draft.form?.sections.length ?? 0)
</script>

<template>
  <div
    class="panes"
    :class="{ wide: tab === 'lists' || tab === 'parties' }"
  >
    <div class="left">
      <nav
        class="tabs"
        aria-label="Views of the draft"
      >
        <NuxtLink
          v-for="t in TABS"
          :key="t.key"
          :to="{ query: t.key === 'script' ? {} : { view: t.key } }"
          :class="{ on: tab === t.key }"
          :aria-current="tab === t.key ? 'page' : undefined"
          >{{ t.words }}</NuxtLink
        >
        <span class="spread" />
        <span class="quiet small">{{ sections }} {{ sections === 1 ? 'section' : 'sections' }}</span>
      </nav>
      <RulebookPane v-if="tab === 'rulebook'" />
      <ListsPane v-else-if="tab === 'lists'" />
      <HistoryPane v-else-if="tab === 'history'" />
      <PartiesPane v-else-if="tab === 'parties'" />
      <FormSettings v-else-if="tab === 'settings'" />
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
.tabs a {
  color: var(--slate);
  text-decoration: none;
  font-size: 14px;
  padding: 8px 0;
}
.tabs a.on {
  color: var(--ink);
  font-weight: 700;
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
