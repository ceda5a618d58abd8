<script setup lang="ts">
import { linksOf } from '#core/lists/integrity'
import { treeOf } from '#core/lists/levels'
import type { ChoiceList } from '#core/form/choiceLists'

/** The lists as the tree that their parent columns make, with counts. */
const props = defineProps<{ lists: readonly ChoiceList[] }>()
const MOST = 60
const links = computed(() => linksOf(props.lists))
const roots = computed(() =>
  props.lists.filter(
    l => !links.value.some(k => k.list === l.code) && links.value.some(k => k.parent === l.code),
  ),
)
const trees = computed(() =>
  roots.value.map(root => ({ root, branches: treeOf(props.lists, root, links.value, MOST) })),
)
const chainOf = (code: string): string =>
  [code, ...links.value.filter(l => l.parent === code).map(l => chainOf(l.list))].join(' → ')
</script>

<template>
  <div class="tree">
    <p
      v-if="trees.length === 0"
      class="small quiet"
    >
      No list has a column that holds the codes of another.
    </p>
    <template
      v-for="t in trees"
      :key="t.root.code"
    >
      <p class="small">
        <strong>{{ chainOf(t.root.code) }}</strong>
      </p>
      <TreeBranch
        v-for="b in t.branches"
        :key="b.row.code"
        :branch="b"
      />
      <p
        v-if="t.root.rows.length > MOST"
        class="small quiet"
      >
        … and {{ t.root.rows.length - MOST }} more
      </p>
    </template>
  </div>
</template>

<style scoped>
.tree {
  border: 1px solid var(--line);
  padding: 10px;
  max-height: 260px;
  overflow-y: auto;
  flex: none;
}
</style>
