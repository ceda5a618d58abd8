<script setup lang="ts">
import type { Marked } from '#core/prove/finding'

/** A rule or a text as it is written, with the words that are wrong marked. */
const props = defineProps<{ marked: Marked }>()
const parts = computed(() => {
  const { text, from, to } = props.marked
  return { before: text.slice(0, from), wrong: text.slice(from, to), after: text.slice(to) }
})
</script>

<template>
  <code class="text"
    >{{ parts.before }}<mark>{{ parts.wrong || ' ' }}</mark
    >{{ parts.after }}</code
  >
</template>

<style scoped>
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: 13px;
}
mark {
  background: var(--madder-wash);
  color: var(--madder);
  text-decoration: underline wavy var(--madder);
  text-underline-offset: 3px;
}
</style>
