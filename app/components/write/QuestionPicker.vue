<script setup lang="ts">
import type { Pointable } from '#core/form/names'

/** Points at a question by number, label or code: typed, then chosen from what fits. */
const props = defineProps<{ value: string; questions: Pointable[] }>()
const emit = defineEmits<{ choose: [code: string] }>()
const items = computed(() =>
  props.questions.map(q => ({ ...q, value: q.code, title: `${q.number} ${q.label}` })),
)
/** A code that there is no longer is shown as it stands. */
const chosen = computed(() => props.value || null)
const fits = (title: string, typed: string, item?: { raw: Pointable }) =>
  hasWords(`${title} ${item?.raw.code ?? ''}`, typed)
function choose(code: string | null) {
  if (code && code !== props.value) emit('choose', code)
}
</script>

<template>
  <v-autocomplete
    class="picker"
    :model-value="chosen"
    :items="items"
    :custom-filter="fits"
    aria-label="Question"
    placeholder="which question?"
    no-data-text="no question like this before here"
    @update:model-value="choose"
    @keydown.stop
  >
    <template #item="{ props: item, internalItem }">
      <v-list-item
        v-bind="item"
        density="compact"
      >
        <template #title>
          <span class="num quiet">{{ internalItem.raw.number }}</span> {{ internalItem.raw.label }}
          <code>{{ internalItem.raw.code }}</code>
        </template>
      </v-list-item>
    </template>
  </v-autocomplete>
</template>

<style scoped>
.picker {
  flex: 0 1 260px;
}
</style>
