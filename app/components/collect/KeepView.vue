<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { KeptView } from '#shared/api/workbench'
import { callApi } from '~/api/callApi'

/** Keeps what is looked at as a view: a new one, or in place of one that is there. */
const props = defineProps<{ view: KeptView | null }>()
const emit = defineEmits<{ close: [] }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const name = ref(props.view?.name ?? '')
const isShared = ref(props.view?.isShared ?? false)
const keep = () =>
  attempt(async () => {
    const body = { name: name.value, isShared: isShared.value, settings: collect.settings }
    const { view } = props
    const params = { id: collect.form }
    const id = view
      ? (await callApi(API.changeView, { params: { ...params, view: view.id }, body })) && view.id
      : (await callApi(API.keepView, { params, body })).id
    await collect.refresh()
    const kept = collect.workbench?.views.find(v => v.id === id)
    if (kept) collect.show(kept)
    emit('close')
  })
</script>

<template>
  <PlainDialog
    :title="view ? `Keep “${view.name}” as it is now` : 'Keep this view'"
    :width="440"
    @close="emit('close')"
  >
    <p>With its search, its filter, its order and its columns.</p>
    <LabelledField
      v-model="name"
      label="Name"
      required
    />
    <v-checkbox
      v-model="isShared"
      label="For everybody who sees these responses"
    />
    <RefusalAlert :refusal="refusal" />
    <template #actions>
      <v-btn @click="emit('close')">Leave it</v-btn
      ><v-btn
        variant="flat"
        color="primary"
        :disabled="busy || name.trim() === ''"
        @click="keep"
        >Keep it</v-btn
      >
    </template>
  </PlainDialog>
</template>
