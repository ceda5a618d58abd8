<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { API } from '#shared/api/endpoints'
import type { Tray, Trays } from '#shared/api/workbench'
import { callApi } from '~/api/callApi'

/** The trays of the team in their order, and who is told of what comes into each. */
const props = defineProps<{ trays: readonly Tray[] }>()
const emit = defineEmits<{ close: [] }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const START: Trays = ['New', 'Checked', 'Ordered', 'Done'].map(name => ({ id: null, name, tells: [] }))
const wanted = ref<Trays>(
  props.trays.length > 0
    ? props.trays.map(({ id, name, tells }) => ({ id, name, tells: [...tells] }))
    : START,
)
const colleagues = computed(() =>
  (collect.workbench?.readers ?? []).map(r => ({
    value: r.email,
    title: r.name,
    props: { subtitle: r.email },
  })),
)
const countOf = (id: string | null) => props.trays.find(t => t.id === id)?.count ?? 0
function move(from: number, to: number) {
  if (to < 0 || to >= wanted.value.length) return
  wanted.value.splice(to, 0, ...wanted.value.splice(from, 1))
}
const save = () =>
  attempt(async () => {
    await callApi(API.saveTrays, { params: { id: collect.form }, body: { trays: wanted.value } })
    await collect.changed()
    emit('close')
  })
</script>

<template>
  <PlainDialog
    title="Trays"
    :width="720"
    @close="emit('close')"
  >
    <p class="quiet">
      Where a response stands in your own work. They are moved by hand, or by what happens by itself.
    </p>
    <div
      v-for="(t, i) in wanted"
      :key="t.id ?? i"
      class="row-flex one"
      data-moves
    >
      <DragHandle
        :name="`Move ${t.name}`"
        :at="i"
        among="trays"
        @move="move"
      />
      <v-text-field
        v-model="t.name"
        :aria-label="`Name of tray ${i + 1}`"
        maxlength="80"
        class="name"
        :data-first="i === 0 ? '' : undefined"
      />
      <v-autocomplete
        v-model="t.tells"
        :items="colleagues"
        multiple
        chips
        placeholder="Nobody is told"
        :aria-label="`Who is told of what comes into ${t.name}`"
      />
      <IconButton
        :icon="mdiClose"
        :name="
          countOf(t.id) > 0
            ? `Without ${t.name}: ${counted(countOf(t.id), 'response')} will be in none`
            : `Without ${t.name}`
        "
        @click="wanted.splice(i, 1)"
      />
    </div>
    <v-btn
      variant="text"
      class="add"
      @click="wanted.push({ id: null, name: '', tells: [] })"
      >+ tray</v-btn
    >
    <RefusalAlert :refusal="refusal" />
    <template #actions>
      <v-btn @click="emit('close')">Leave them</v-btn
      ><v-btn
        variant="flat"
        color="primary"
        :disabled="busy || wanted.some(t => t.name.trim() === '')"
        @click="save"
        >Save the trays</v-btn
      >
    </template>
  </PlainDialog>
</template>

<style scoped>
.one {
  flex-wrap: nowrap;
}
.name {
  flex: 0 0 200px;
}
.add {
  justify-self: start;
}
</style>
