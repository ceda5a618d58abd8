<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'
import { codeFromLabel, freeCode } from '#core/form/codes'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** Adds a list whose rows are the people of a team. */
const props = defineProps<{ all: readonly ChoiceList[] }>()
const emit = defineEmits<{ added: [code: string] }>()
const draft = useDraft()
const { data, error } = await useAsyncData('directory', () => callApi(API.loadDirectory), { server: false })
const teams = computed(() => data.value?.teams ?? [])
const refusal = ref('')

async function add(team: string) {
  refusal.value = ''
  const code = freeCode(codeFromLabel(team, 'list'), new Set(props.all.map(l => l.code)))
  const node: ChoiceList = { code, title: team, people: team, rows: [] }
  if (!draft.edit([{ do: 'insert', into: 'lists', at: props.all.length, node }])) return
  emit('added', code)
  try {
    // The rows come from the server, when it has the list.
    await draft.flush()
    await draft.load(draft.id)
  } catch (cause) {
    refusal.value = refusalOf(cause).sentence
  }
}
</script>

<template>
  <v-menu v-if="teams.length > 0">
    <template #activator="{ props: activator }">
      <v-btn
        v-bind="activator"
        variant="text"
        class="start"
        >+ people of a team</v-btn
      >
    </template>
    <v-list aria-label="Teams">
      <v-list-item
        v-for="team in teams"
        :key="team.id"
        :title="team.name"
        @click="add(team.name)"
      />
    </v-list>
  </v-menu>
  <RefusalAlert :refusal="refusal || (error && refusalOf(error))" />
</template>

<style scoped>
.start {
  justify-self: start;
}
</style>
