<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Tile } from '#shared/api/dashboards'
import { callApi } from '~/api/callApi'

/** Puts a figure, as it is looked at, on a dashboard that is there or on a new one. */
const props = defineProps<{ tile: Tile }>()
const emit = defineEmits<{ close: [] }>()
const { say } = useSaid()
const { refusal, busy, attempt } = useRefusable()
const { data } = await useAsyncData('dashboards', () => callApi(API.listDashboards), { server: false })
const NEW = 'new'
const own = computed(() => data.value?.dashboards.filter(b => b.isOwn) ?? [])
const items = computed(() => [
  ...own.value.map(b => ({ value: b.id, title: b.name })),
  { value: NEW, title: 'a new dashboard' },
])
const onto = ref<string | null>(null)
const chosen = computed(() => onto.value ?? own.value[0]?.id ?? NEW)
const name = ref('')
const title = ref(props.tile.title)
const tile = computed((): Tile => ({ ...props.tile, title: title.value }))
const put = () =>
  attempt(async () => {
    const board = own.value.find(b => b.id === chosen.value)
    if (board) {
      const { id, name: called, isShared } = board
      const tiles = board.tiles.map(({ formTitle: _, ...kept }) => kept)
      const body = { name: called, isShared, tiles: [...tiles, tile.value] }
      await callApi(API.changeDashboard, { params: { id }, body })
    } else {
      const body = { name: name.value, isShared: false, tiles: [tile.value] }
      await callApi(API.keepDashboard, { body })
    }
    await refreshNuxtData('dashboards')
    say('It stands on the dashboard.')
    emit('close')
  })
</script>

<template>
  <PlainDialog
    title="Put it on a dashboard"
    :width="440"
    @close="emit('close')"
  >
    <RefusalAlert :refusal="refusal" />
    <p class="quiet">
      As it is looked at now: with its filter, and compared as it is. It follows the responses.
    </p>
    <LabelledField
      v-model="title"
      label="Title"
    />
    <label class="field"
      >On
      <v-select
        :model-value="chosen"
        :items="items"
        aria-label="Which dashboard"
        @update:model-value="onto = $event"
    /></label>
    <LabelledField
      v-if="chosen === NEW"
      v-model="name"
      label="Name of the dashboard"
      required
    />
    <template #actions>
      <v-btn @click="emit('close')">Leave it</v-btn>
      <v-btn
        variant="flat"
        color="primary"
        :disabled="busy || (chosen === NEW && name.trim() === '')"
        @click="put"
        >Put it there</v-btn
      >
    </template>
  </PlainDialog>
</template>
