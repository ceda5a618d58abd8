<script setup lang="ts">
/** How far a response is: a bar for each page, and the same in words. */
defineProps<{ count: number; at: number; text: string; isLast: boolean }>()
</script>

<template>
  <div class="progress">
    <div
      class="bars"
      aria-hidden="true"
    >
      <i
        v-for="i in count"
        :key="i"
        :class="{ done: isLast || i - 1 <= at }"
      />
    </div>
    <p class="quiet small">{{ isLast ? 'Last step' : text }}</p>
  </div>
</template>

<style scoped>
.bars {
  display: flex;
  gap: min(5px, 1%);
  margin-bottom: 8px;
}
.bars i {
  flex: 1;
  min-width: 1px;
  height: 5px;
  background: var(--line);
}
.bars i.done {
  background: var(--verdigris);
}
</style>
