<script setup lang="ts">
import type { ResponseLine } from '#core/fill/describeResponse'

/** An answer in words; what was lightly formatted is shown so. */
defineProps<{ line: Pick<ResponseLine, 'isRich' | 'text'> }>()
const Formatted = defineAsyncComponent(() => import('./FormattedText.vue'))
</script>

<template>
  <Formatted
    v-if="line.isRich"
    :text="line.text"
  />
  <template v-else>{{ line.text }}</template>
</template>
