<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import type { FormBrief } from '#shared/api/forms'
import type { Power } from '#shared/api/sharing'
import type { FormAct } from './formActs'

/** What can be done with one form of the table. */
const props = defineProps<{ form: FormBrief }>()
const emit = defineEmits<{ act: [act: FormAct] }>()
const { user } = useUserSession()
const ACTS: readonly { act: FormAct; needs: Power; title: string }[] = [
  { act: 'share', needs: 'own', title: 'Share…' },
  { act: 'copy', needs: 'read', title: 'Duplicate…' },
  { act: 'tag', needs: 'design', title: 'Tags…' },
  { act: 'archive', needs: 'design', title: 'Put into the archive' },
  { act: 'delete', needs: 'own', title: 'Delete…' },
]
const acts = computed(() =>
  ACTS.filter(
    a => props.form.powers.includes(a.needs) && (a.act !== 'copy' || user.value?.role !== 'member'),
  ).map(a => (a.act === 'archive' && props.form.isArchived ? { ...a, title: 'Take out of the archive' } : a)),
)
</script>

<template>
  <v-menu
    v-if="acts.length > 0"
    location="bottom end"
  >
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
