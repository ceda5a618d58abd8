<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { RIGHTS, type Right, type Share } from '#shared/api/sharing'

/** What one person or team may do with a form. */
const props = defineProps<{ share: Share }>()
const emit = defineEmits<{ give: [rights: Right[]] }>()
const ITEMS = RIGHTS.map(value => ({ value, title: RIGHT_NAMES[value] }))
/** Whoever owns a form may everything: a right chosen beside it takes its place. */
function change(rights: Right[]) {
  const isOwner = rights.includes('own')
  const wasOwner = props.share.rights.includes('own')
  if (isOwner && !wasOwner) emit('give', ['own'])
  else if (isOwner && rights.length > 1)
    emit(
      'give',
      rights.filter(r => r !== 'own'),
    )
  else emit('give', rights)
}
</script>

<template>
  <li class="row-flex share">
    <span class="who"
      ><strong>{{ share.name }}</strong> <span class="quiet small">{{ share.email ?? 'team' }}</span></span
    >
    <v-select
      :model-value="share.rights"
      :items="ITEMS"
      multiple
      chips
      :aria-label="`What ${share.name} may do`"
      @update:model-value="change"
    />
    <IconButton
      :icon="mdiClose"
      :name="`Share no longer with ${share.name}`"
      @click="emit('give', [])"
    />
  </li>
</template>

<style scoped>
.share {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr) auto;
}
.who {
  display: grid;
  overflow-wrap: anywhere;
}
</style>
