<script setup lang="ts">
import { useFindingsView } from '~/composables/prove/useFindingsView'

const draft = useDraft()
const view = ref<'findings' | 'promises' | 'walks'>('findings')
const findingsView = useFindingsView()
const { all, open, bySection, weight, section, wanted, grouped } = findingsView
const VIEWS = [
  { key: 'findings', words: 'Findings', count: () => all.value.length },
  { key: 'promises', words: 'Promises', count: () => draft.form?.promises?.length ?? 0 },
  { key: 'walks', words: 'Walks', count: () => draft.form?.walks?.length ?? 0 },
] as const
</script>

<template>
  <div
    class="prove"
    :class="{ plain: view !== 'findings' }"
  >
    <aside class="side">
      <nav
        class="views"
        aria-label="Prove"
      >
        <v-btn
          v-for="v in VIEWS"
          :key="v.key"
          variant="plain"
          class="pick"
          :aria-pressed="view === v.key"
          @click="view = v.key"
        >
          <span>{{ v.words }}</span><b class="num">{{ v.count() }}</b>
        </v-btn>
      </nav>
      <FindingsSide
        v-if="view === 'findings'"
        v-model:weight="weight"
        v-model:section="section"
        :by-section="bySection"
      />
      <ProofTally />
    </aside>
    <PromisesPane
      v-if="view === 'promises'"
      class="middle"
    />
    <WalksPane
      v-else-if="view === 'walks'"
      class="middle"
    />
    <section
      v-else
      class="middle"
      aria-label="Findings"
    >
      <FindingsHead
        v-model:wanted="wanted"
        v-model:grouped="grouped"
        :found="all.length"
      />
      <FindingsList :view="findingsView" />
    </section>
    <EvidencePanel
      v-if="open && view === 'findings'"
      :finding="open"
    />
  </div>
</template>

<style scoped>
.prove {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr) 400px;
  height: 100%;
}
.prove.plain {
  grid-template-columns: 300px minmax(0, 1fr);
}
.plain .middle {
  border-right: 0;
  max-width: none;
}
.views {
  display: grid;
  margin-bottom: 6px;
}
.side {
  padding: 16px 20px;
  overflow-y: auto;
  display: grid;
  gap: 8px;
  align-content: start;
}
.side :deep(h2) {
  font-size: 15px;
}
.side :deep(h2:not(:first-child)) {
  margin-top: 14px;
}
.side :deep(.pick) {
  margin: 0 -6px;
}
.middle {
  background: var(--paper);
  border: 1px solid var(--line);
  border-width: 0 1px;
  overflow-y: auto;
}
@media (max-width: 900px) {
  .prove {
    grid-template-columns: 1fr;
    height: auto;
  }
}
</style>
