<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Digest, KeptView } from '#shared/api/workbench'
import { callApi } from '~/api/callApi'

/** Keeps what is looked at as a view: a new one, or in place of one that is there. */
const props = defineProps<{ view: KeptView | null }>()
const emit = defineEmits<{ close: [] }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const name = ref(props.view?.name ?? '')
const isShared = ref(props.view?.isShared ?? false)
type Every = 'never' | Digest['every']
const every = ref<Every>(props.view?.digest?.every ?? 'never')
const EVERY = [
  { value: 'never', title: 'nobody is told' },
  { value: 'day', title: 'each morning' },
  { value: 'week', title: 'each Monday' },
] as const
const before = props.view?.digest?.to
/** Addresses, or the name of a team. */
const told = ref(before && 'team' in before ? before.team : (before?.addresses.join(', ') ?? ''))
const digest = computed((): Digest | null => {
  const text = told.value.trim()
  if (every.value === 'never' || text === '') return null
  const to = text.includes('@') ? { addresses: text.split(/[\s,;]+/).filter(Boolean) } : { team: text }
  return { every: every.value, to }
})
const keep = () =>
  attempt(async () => {
    const body = {
      name: name.value,
      isShared: isShared.value,
      settings: collect.settings,
      digest: digest.value,
    }
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
    <label class="field"
      >Of what is new in it
      <v-select
        v-model="every"
        :items="EVERY"
        aria-label="When somebody is told of what is new"
    /></label>
    <LabelledField
      v-if="every !== 'never'"
      v-model="told"
      label="Who is told"
      hint="Addresses, or the name of a team. They get numbers and days, no answers."
      required
    />
    <RefusalAlert :refusal="refusal" />
    <template #actions>
      <v-btn @click="emit('close')">Leave it</v-btn
      ><v-btn
        variant="flat"
        color="primary"
        :disabled="busy || name.trim() === '' || (every !== 'never' && digest === null)"
        @click="keep"
        >Keep it</v-btn
      >
    </template>
  </PlainDialog>
</template>
