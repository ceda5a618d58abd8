<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** Taking responsibility for a version: a note to it, a second person’s approval where the form asks for one, and the release. */
const props = defineProps<{ number: number; isReady: boolean; sameMeanings: readonly string[] }>()
const draft = useDraft()
const { user } = useUserSession()
const params = { id: draft.id }
const { data: opening, refresh } = await useAsyncData(
  () => `opening-${draft.id}`,
  () => callApi(API.loadOpening, { params }),
  { server: false },
)
const note = ref('')
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const busy = ref(false)
const needsApproval = computed(() => opening.value?.settings.needsApproval === true)
/** What is asked for, as far as it is about the draft as it stands. */
const asked = computed(() => {
  const approval = opening.value?.approval ?? null
  return approval?.revision === draft.revision ? approval : null
})
const isOwn = computed(() => asked.value?.by === user.value?.id)
const isOutdated = computed(() => opening.value?.approval != null && asked.value === null)
const mayRelease = computed(() => !needsApproval.value || (asked.value !== null && !isOwn.value))

async function attempt(run: () => Promise<unknown>) {
  busy.value = true
  refusal.value = null
  try {
    await draft.flush()
    await run()
    await refresh()
  } catch (error) {
    refusal.value = refusalOf(error)
  }
  busy.value = false
}
const release = () =>
  attempt(async () => {
    const body = { revision: draft.revision, note: note.value, sameMeanings: [...props.sameMeanings] }
    await callApi(API.releaseForm, { params, body })
    note.value = ''
    await draft.load(draft.id)
  })
const ask = () =>
  attempt(() => callApi(API.askApproval, { params, body: { revision: draft.revision, note: note.value } }))
const takeBack = () => attempt(() => callApi(API.dropApproval, { params }))
const setPolicy = (to: boolean) =>
  attempt(async () => {
    const { settings } = await callApi(API.loadOpening, { params })
    await callApi(API.saveOpening, { params, body: { ...settings, needsApproval: to } })
  })
</script>

<template>
  <div class="sign-off">
    <v-textarea
      v-if="isReady && !asked"
      v-model="note"
      rows="1"
      auto-grow
      maxlength="10000"
      aria-label="Note to this version"
      placeholder="A note to this version: what it is for, whom to ask"
    />
    <p v-if="asked">
      {{ isOwn ? 'You ask' : `${asked.name} asks` }} that this version is approved, since
      {{ readableDay(asked.at) }}, {{ readableTime(asked.at, true) }}.
      <template v-if="asked.note">“{{ asked.note }}”</template>
    </p>
    <p
      v-if="isOutdated"
      class="risk small"
    >
      The draft has changed since {{ opening?.approval?.name }} asked for approval: it has to be asked for
      anew.
    </p>
    <RefusalAlert :refusal="refusal" />
    <div class="row-flex">
      <v-btn
        v-if="mayRelease || !isReady"
        variant="flat"
        color="primary"
        :disabled="!isReady || busy || !mayRelease"
        @click="release"
      >
        {{ asked ? `Approve and release version ${props.number}` : `Release version ${props.number}` }}
      </v-btn>
      <v-btn
        v-else-if="!asked"
        variant="flat"
        color="primary"
        :disabled="busy"
        @click="ask"
      >
        Ask for approval
      </v-btn>
      <v-btn
        v-if="asked"
        :disabled="busy"
        @click="takeBack"
      >
        {{ isOwn ? 'Take it back' : 'Decline' }}
      </v-btn>
      <span
        v-if="asked && isOwn"
        class="quiet small"
        >Somebody else who may release looks at the proof and the changes, and approves.</span
      >
    </div>
    <v-checkbox
      v-if="draft.may('own')"
      :model-value="needsApproval"
      :disabled="busy"
      label="A second person approves each version"
      @update:model-value="setPolicy($event === true)"
    />
  </div>
</template>

<style scoped>
.sign-off {
  display: grid;
  gap: 12px;
}
</style>
