<script setup lang="ts">
import { mdiCommentOutline } from '@mdi/js'

/** How many remarks are open about a row; nothing where there are none. */
const props = defineProps<{ about: string }>()
const suggestions = useSuggestions()
const remarks = computed(() => suggestions.remarks.get(props.about) ?? 0)
const words = computed(() => counted(remarks.value, 'remark'))
</script>

<template>
  <span
    v-if="remarks > 0"
    class="small mark"
    :title="words"
    ><v-icon
      :icon="mdiCommentOutline"
      size="14"
      :aria-label="words"
    />
    {{ remarks }}</span
  >
</template>

<style scoped>
.mark {
  color: var(--woad);
  white-space: nowrap;
}
</style>
