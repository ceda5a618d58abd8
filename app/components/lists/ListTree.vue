<script setup lang="ts">
import { linksOf } from '#core/lists/integrity'
import { treeOf, type Branch } from '#core/lists/levels'
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
interface TreeItem {
  code: string
  title: string
  count: number
  children?: TreeItem[]
}
const itemOf = ({ row, count, below }: Branch): TreeItem => ({
  code: row.code,
  title: row.label,
  count,
  ...(below.length > 0 ? { children: below.map(itemOf) } : {}),
})
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
      <v-treeview
        :items="t.branches.map(itemOf)"
        item-value="code"
        open-on-click
        density="compact"
        :aria-label="chainOf(t.root.code)"
      >
        <template #append="{ item }">
          <span
            v-if="item.children"
            class="quiet num"
            >{{ item.count }}</span
          >
        </template>
      </v-treeview>
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
