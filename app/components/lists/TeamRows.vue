<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'

/** The rows of a list of people, to be read: the team is put together under People. */
const props = defineProps<{ list: ChoiceList }>()
const HEADS = [
  { title: 'Name', key: 'label' },
  { title: 'E-mail', key: 'email' },
  { title: 'Code', key: 'code' },
]
const rows = computed(() => [...props.list.rows])
</script>

<template>
  <div class="team-rows">
    <p class="small quiet">
      The people of the team “{{ list.people }}”, kept by itself: who joins is offered from then on, also
      under links that are open; who leaves is no longer offered, and stays by name where they were chosen.
    </p>
    <v-data-table
      :headers="HEADS"
      :items="rows"
      item-value="code"
      :items-per-page="-1"
      hide-default-footer
      no-data-text="Nobody is in this team, or there is no such team in this workspace."
    />
  </div>
</template>

<style scoped>
.team-rows {
  display: grid;
  gap: 8px;
  align-content: start;
  overflow-y: auto;
}
</style>
