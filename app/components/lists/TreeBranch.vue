<script setup lang="ts">
import type { Branch } from '#core/lists/levels'

defineProps<{ branch: Branch }>()
</script>

<template>
  <details
    v-if="branch.below.length > 0"
    class="branch small"
  >
    <summary>
      {{ branch.row.label }} <span class="quiet num">{{ branch.count }}</span>
    </summary>
    <TreeBranch
      v-for="b in branch.below"
      :key="b.row.code"
      :branch="b"
    />
  </details>
  <p
    v-else
    class="leaf small"
  >
    {{ branch.row.label }}
  </p>
</template>

<style scoped>
.branch {
  padding-left: 14px;
}
.leaf {
  padding-left: 28px;
}
summary {
  cursor: pointer;
}
</style>
