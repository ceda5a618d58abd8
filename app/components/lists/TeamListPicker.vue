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

async function add(team: string | null) {
  if (!team) return
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
  <v-select
    v-if="teams.length > 0"
    :model-value="null"
    :items="teams"
    item-title="name"
    item-value="name"
    placeholder="+ people of a team"
    aria-label="A list of the people of a team"
    @update:model-value="add"
  />
  <RefusalAlert :refusal="refusal || (error && refusalOf(error))" />
</template>
