<script setup lang="ts">
import { isChoice, type OptionType, type QuestionOf } from '#core/form/questions'
import type { Place } from '#core/form/walk'

/** Where the choices of a question come from: options of its own, or a list. */
const props = defineProps<{ question: QuestionOf<OptionType>; place: Place }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>, merge?: string | null] }>()
const draft = useDraft()
const choice = computed(() => (isChoice(props.question) ? props.question : null))
const lists = computed(() => draft.form?.lists ?? [])
function takeFrom(list: string) {
  if (list) emit('set', { list, options: null })
  else emit('set', { list: null, narrowedBy: null, options: [] })
}
</script>

<template>
  <div class="stack">
    <label
      v-if="choice && lists.length > 0"
      class="small quiet"
      >from
      <v-select
        :model-value="choice.list ?? ''"
        aria-label="Where the choices come from"
        :items="[
          { value: '', title: 'options of its own' },
          ...lists.map(l => ({ value: l.code, title: `the list ${l.title || l.code}` })),
        ]"
        @update:model-value="takeFrom($event)"
    /></label>
    <OptionsEditor
      :question="question"
      field="options"
      :address="place.address"
      :place="place"
    />
    <NuxtLink
      v-if="choice?.list"
      class="small"
      :to="{ query: { view: 'lists', list: choice.list } }"
      >Open the list</NuxtLink
    >
    <label
      v-if="choice?.list"
      class="small"
      ><v-checkbox-btn
        :model-value="choice.onlyOne === true"
        @change="emit('set', { onlyOne: choice.onlyOne ? null : true })"
      />
      the only one left is chosen unasked</label
    >
    <NarrowField
      v-if="choice?.list"
      :question="choice"
      :place="place"
      @change="emit('set', { narrowedBy: $event }, 'narrowedBy')"
    />
  </div>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 6px;
}
</style>
