<script setup lang="ts">
import { ruleSentence } from '#core/form/names'

const props = defineProps<{ words: string; text: string }>()
const draft = useDraft()
/** The same sentence stays the same object: rows whose sentences did not change are not drawn anew. */
const segments = computed<ReturnType<typeof ruleSentence>>(before => {
  const now = draft.words ? ruleSentence(props.text, draft.words) : null
  return before && now && before.length === now.length && before.every((s, i) => s.text === now[i]?.text)
    ? before
    : now
})
</script>

<template>
  <span class="rule"
    >{{ words }}
    <template v-if="segments"
      ><template
        v-for="(s, i) in segments"
        :key="i"
        ><b v-if="s.role !== 'word'">{{ s.text }}</b
        ><template v-else>{{ s.text }}</template></template
      ></template
    >
    <code
      v-else
      class="fault"
      >{{ text || 'an empty rule' }}</code
    >
  </span>
</template>

<style scoped>
.rule {
  font-size: 13px;
  color: var(--verdigris);
}
b {
  font-weight: 600;
}
</style>
