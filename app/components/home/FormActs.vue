<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import type { FormBrief } from '#shared/api/forms'
import type { FormAct } from './formActs'

/** What can be done with one form of the table. */
const props = defineProps<{ form: FormBrief }>()
const emit = defineEmits<{ act: [act: FormAct] }>()
const acts = computed((): { act: FormAct; title: string }[] => [
  { act: 'copy', title: 'Duplicate…' },
  { act: 'tag', title: 'Tags…' },
  { act: 'archive', title: props.form.isArchived ? 'Take out of the archive' : 'Put into the archive' },
  { act: 'delete', title: 'Delete…' },
])
</script>

<template>
  <v-menu location="bottom end">
    <template #activator="{ props: activator }">
      <IconButton
        v-bind="activator"
        :icon="mdiDotsVertical"
        :name="`More for ${form.title}`"
      />
    </template>
    <v-list>
      <v-list-item
        v-for="a in acts"
        :key="a.act"
        :title="a.title"
        @click="emit('act', a.act)"
      />
    </v-list>
  </v-menu>
</template>
