<script setup lang="ts">
import type { FormBrief } from '#shared/api/forms'
import type { FormAct } from './formActs'

/** The forms with what there is of each; some chosen for what is done with several. */
defineProps<{ forms: readonly FormBrief[] }>()
const chosen = defineModel<string[]>('chosen', { required: true })
const emit = defineEmits<{ act: [act: FormAct, form: FormBrief]; tag: [tag: string] }>()
const HEADERS = [
  { title: 'Form', key: 'title', width: '30%' },
  { title: 'Code', key: 'code' },
  { title: 'Questions', key: 'questions', align: 'end' },
  { title: 'Release', key: 'release', nowrap: true },
  { title: 'Responses', key: 'responses', align: 'end' },
  { title: 'Last saved', key: 'savedAt', nowrap: true },
  { title: '', key: 'acts', sortable: false, width: 56 },
] as const
</script>

<template>
  <v-data-table
    v-model="chosen"
    :headers="HEADERS"
    :items="forms"
    item-value="id"
    show-select
    :items-per-page="50"
    :hide-default-footer="forms.length <= 50"
  >
    <template #[`header.data-table-select`]="{ allSelected, someSelected, selectAll }">
      <v-checkbox-btn
        :model-value="allSelected"
        :indeterminate="someSelected && !allSelected"
        aria-label="Choose all forms for export"
        @update:model-value="selectAll(!allSelected)"
      />
    </template>
    <template #[`item.data-table-select`]="{ item, internalItem, isSelected, toggleSelect }">
      <v-checkbox-btn
        :model-value="isSelected(internalItem)"
        :aria-label="`Choose ${item.title} for export`"
        @update:model-value="toggleSelect(internalItem)"
      />
    </template>
    <template #[`header.acts`]><span class="hidden-words">More</span></template>
    <template #[`item.title`]="{ item }"
      ><NuxtLink
        :to="`/forms/${item.id}/write`"
        class="form-link"
        >{{ item.title }}</NuxtLink
      ><v-chip
        v-for="tag in item.tags"
        :key="tag"
        tag="button"
        class="tag"
        :aria-label="`Tag ${tag}: show only these`"
        @click="emit('tag', tag)"
        >{{ tag }}</v-chip
      ><span
        v-if="sayPowers(item.powers)"
        class="quiet small powers"
        >{{ sayPowers(item.powers) }}</span
      ><NuxtLink
        v-if="item.suggestions > 0"
        :to="{ path: `/forms/${item.id}/write`, query: { view: 'suggestions' } }"
        class="small powers"
        >{{ counted(item.suggestions, 'suggestion') }}</NuxtLink
      ></template
    >
    <template #[`item.code`]="{ item }"
      ><code class="quiet">{{ item.code }}</code></template
    >
    <template #[`item.release`]="{ item }">{{
      item.release > 0 ? `version ${item.release}` : 'not yet released'
    }}</template>
    <template #[`item.responses`]="{ item }"
      ><NuxtLink
        v-if="item.responses !== null && item.responses > 0"
        :to="`/forms/${item.id}/collect`"
        >{{ item.responses }}</NuxtLink
      ><span
        v-else
        class="quiet"
        >{{ item.responses === null ? '·' : '0' }}</span
      ></template
    >
    <template #[`item.savedAt`]="{ item }"
      ><span class="quiet">{{ readableDay(item.savedAt) }}</span></template
    >
    <template #[`item.acts`]="{ item }"
      ><FormActs
        :form="item"
        @act="emit('act', $event, item)"
    /></template>
  </v-data-table>
</template>

<style scoped>
.form-link {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
.form-link:hover {
  text-decoration: underline;
}
.powers,
.tag {
  white-space: nowrap;
  margin-left: 6px;
}
</style>
