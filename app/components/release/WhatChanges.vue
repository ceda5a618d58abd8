<script setup lang="ts">
import { describeEdits } from '#core/form/describeEdits'
import { editsBetween } from '#core/form/editsBetween'
import { API } from '#shared/api/endpoints'
import type { ReleaseBrief } from '#shared/api/releases'
import { callApi } from '~/api/callApi'

/** What the draft changes against a version, thing by thing. */
const props = defineProps<{ version: ReleaseBrief }>()
const draft = useDraft()
const { data: before, error } = await useAsyncData(
  () => `version-${props.version.id}`,
  async () => {
    const { revision } = props.version
    if (revision === null) return null
    return (await callApi(API.loadState, { params: { id: draft.id, revision } })).form
  },
  { server: false, deep: false },
)
const lines = computed(() => {
  const { form } = draft
  if (!before.value || !form) return []
  const there = new Set(draft.places.map(p => p.address))
  return describeEdits(before.value, editsBetween(before.value, form)).map(line => ({
    ...line,
    address: line.address !== null && there.has(line.address) ? line.address : null,
  }))
})
function go(address: NonNullable<(typeof lines.value)[number]['address']>) {
  draft.select(address)
  void navigateTo(`/forms/${draft.id}/write`)
}
</script>

<template>
  <RefusalAlert
    v-if="error"
    :refusal="`Version ${version.number} could not be fetched: ${refusalOf(error).sentence}`"
  />
  <div v-else-if="lines.length > 0">
    <h3>{{ counted(lines.length, 'change') }} since version {{ version.number }}</h3>
    <ProposalLines
      :lines="lines"
      @go="go"
    />
  </div>
</template>

<style scoped>
h3 {
  font-size: 15px;
  margin-bottom: 6px;
}
</style>
