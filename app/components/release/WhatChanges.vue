<script setup lang="ts">
import { describeEdits } from '#core/form/describeEdits'
import { editsBetween } from '#core/form/editsBetween'
import { API } from '#shared/api/endpoints'
import type { ReleaseBrief } from '#shared/api/releases'
import { callApi } from '~/api/callApi'
import { useVersionEffects } from '~/composables/release/useVersionEffects'

/** What a later version, or the draft, changes against a version, thing by thing, and what comes of it for whom. */
/** So many are told at first. */
const FIRST = 12
const props = defineProps<{ version: ReleaseBrief; later?: ReleaseBrief }>()
const draft = useDraft()
/** A version as it was released; null where the state of the draft of then is not known. */
async function formOf({ revision }: ReleaseBrief) {
  if (revision === null) return null
  return (await callApi(API.loadState, { params: { id: draft.id, revision } })).form
}
const { data, error } = await useAsyncData(
  () => `version-${props.version.id}-${props.later?.id ?? 'draft'}`,
  async () => {
    const { version, later } = props
    return { before: await formOf(version), later: later ? await formOf(later) : null }
  },
  { server: false, deep: false },
)
const before = computed(() => data.value?.before ?? null)
const after = computed(() => (props.later ? (data.value?.later ?? null) : draft.form))
const lines = computed(() => {
  const form = after.value
  if (!before.value || !form) return []
  const there = new Set(draft.places.map(p => p.address))
  return describeEdits(before.value, editsBetween(before.value, form)).map(line => ({
    ...line,
    address: line.address !== null && there.has(line.address) ? line.address : null,
  }))
})
const { found, refusal, isWorking } = useVersionEffects(
  () => before.value,
  () => after.value,
)
/** The first lines; a version that does much otherwise is told in parts. */
const isAllShown = ref(false)
const shownLines = computed(
  () => (isAllShown.value ? found.value?.lines : found.value?.lines.slice(0, FIRST)) ?? [],
)
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
    <h3>
      {{ counted(lines.length, 'change') }} since version {{ version.number
      }}{{ later ? `, in version ${later.number}` : '' }}
    </h3>
    <ProposalLines
      :lines="lines"
      @go="go"
    />
    <h3 class="effects">For whom</h3>
    <RefusalAlert
      v-if="refusal"
      :refusal="refusal"
    />
    <p
      v-else-if="isWorking"
      class="quiet"
      role="status"
    >
      Deciding for all possible answers …
    </p>
    <template v-else-if="found">
      <EffectLines
        v-if="found.lines.length > 0"
        :lines="shownLines"
        @go="go"
      />
      <v-btn
        v-if="found.lines.length > shownLines.length"
        variant="text"
        @click="isAllShown = true"
        >{{ found.lines.length - shownLines.length }} more</v-btn
      >
      <p class="proven small rest">
        ✓ {{ found.lines.length === 0 ? 'Everything' : 'All else' }} is the same for everyone, decided for all
        possible answers: what is asked, has to be answered, and is offered.
        <template v-if="after?.turns?.length">Which party sees and fills what is not compared here.</template>
      </p>
      <PromiseOutcomes
        v-if="found.promises.length > 0"
        :promises="found.promises"
      />
    </template>
  </div>
</template>

<style scoped>
p.rest {
  margin-top: 10px;
}
h3.effects {
  margin-top: 16px;
}
h3 {
  font-size: 15px;
  margin-bottom: 6px;
}
</style>
