<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'
import type { RowProblem } from '#core/lists/integrity'
import { useListView } from '~/composables/lists/useListView'
import type { Panel } from './ListTools.vue'

/** The choice lists of the form: each a table that is typed, pasted, brought in and checked. */
const draft = useDraft()
const lists = useLists()
const route = useRoute()
onMounted(() => lists.start())
const all = computed(() => draft.form?.lists ?? [])
const chosen = ref<string | null>(typeof route.query.list === 'string' ? route.query.list : null)
const list = computed<ChoiceList | null>(
  () => all.value.find(l => l.code === chosen.value) ?? all.value[0] ?? null,
)
const problems = computed(() => (list.value ? lists.of(list.value.code) : []))
const { search, only, sorted, wrong, view, sort, keepOrder, showProblems } = useListView(list, problems)
const grid = useTemplateRef('grid')
const panel = ref<Panel | null>(null)
/** A table that was pasted into a list without rows: it is looked at before it comes in. */
const pasted = ref<string | null>(null)
watch([() => list.value?.code, panel], ([code], [before]) => {
  if (code !== before) panel.value = null
  if (panel.value !== 'import') pasted.value = null
})
function lookAtTable(text: string) {
  pasted.value = text
  panel.value = 'import'
}
/** After rows became linked lists, the tree of them is shown. */
function showTree(code: string) {
  chosen.value = code
  panel.value = 'tree'
}
async function look(problem: RowProblem) {
  showProblems()
  await nextTick()
  grid.value?.reveal(problem.rows[0] ?? 0)
}
</script>

<template>
  <div class="lists">
    <ListSide
      v-model:chosen="chosen"
      :all="all"
      :list="list"
    />
    <section
      v-if="list"
      class="main"
      :aria-label="`The list ${list.title || list.code}`"
    >
      <ListHeading
        :list="list"
        @recoded="chosen = $event"
      />
      <TeamRows
        v-if="list.people !== undefined"
        :list="list"
      />
      <template v-else>
        <ListTools
          v-model:search="search"
          v-model:only="only"
          v-model:panel="panel"
          :list="list"
          :in-view="view.length"
          :sorted="sorted !== null"
          @keep-order="keepOrder"
        />
        <RowTools
          @insert="grid?.insert()"
          @retire="grid?.retire()"
          @remove="grid?.remove()"
          @mark="grid?.mark($event)"
        />
        <ListImport
          v-if="panel === 'import'"
          :key="pasted ?? ''"
          :list="list"
          :pasted="pasted"
          @close="panel = null"
        />
        <ListColumns
          v-else-if="panel === 'columns'"
          class="panel"
          :list="list"
          :all="all"
          @split="showTree"
        />
        <ListTree
          v-else-if="panel === 'tree'"
          :lists="all"
        />
        <ListGroups
          v-else-if="panel === 'groups'"
          class="panel"
          :list="list"
          :all="all"
          @added="showTree"
        />
        <ListProblems
          :list="list"
          :problems="problems"
          @look="look"
        />
        <ListGrid
          ref="grid"
          :list="list"
          :view="view"
          :marked="wrong"
          :sorted="sorted"
          @sort="sort"
          @table="lookAtTable"
        />
      </template>
    </section>
    <v-empty-state
      v-else
      title="No lists yet"
      text="A list keeps the choices that several questions share, such as harbours or products, with columns that rules can use. Name one on the left, then type rows, paste them from a spreadsheet, or import a file."
    />
  </div>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: 170px minmax(0, 1fr);
  min-height: 0;
  flex: 1;
}
.main {
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 10px 12px;
  min-width: 0;
  min-height: 0;
}
.main > :last-child {
  flex: 1;
  min-height: 0;
}
.panel {
  border: 1px solid var(--line);
  padding: 10px;
  display: grid;
  gap: 6px;
  max-height: 260px;
  overflow-y: auto;
  flex: none;
}
</style>
