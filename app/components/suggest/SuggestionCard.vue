<script setup lang="ts">
import { describeEdits } from '#core/form/describeEdits'
import { EditError } from '#core/form/edits'
import { placeProposal } from '#core/form/proposals'
import { placeName, type Address } from '#core/form/walk'
import type { Outcome, Suggestion } from '#shared/api/suggestions'
import type { EffectState } from '~/composables/suggest/useProposalEffects'

/** One open suggestion: what is said or proposed, what it does to the form, and what can be done about it. */
const props = defineProps<{ suggestion: Suggestion; effect?: EffectState | undefined; isAtRow?: boolean }>()
const emit = defineEmits<{ go: [address: Address] }>()
const draft = useDraft()
const suggestions = useSuggestions()
const { say, sayDone } = useSaid()
const reply = ref('')
const refusal = ref('')
const isBusy = ref(false)
const isProposal = computed(() => props.suggestion.proposal !== null)
const place = computed(() => draft.places.find(p => p.address === props.suggestion.about))
const lines = computed(() => {
  const { proposal } = props.suggestion
  if (!draft.form || !proposal) return []
  try {
    return describeEdits(draft.form, placeProposal(draft.form, proposal))
  } catch (error) {
    // What can't be made any more is said by its effect.
    if (error instanceof EditError) return []
    throw error
  }
})
const mayDecide = computed(() => draft.may('design'))
const maySettle = computed(() => !isProposal.value && (mayDecide.value || props.suggestion.own))
const isImpossible = computed(() => props.effect?.kind === 'impossible')
const when = computed(() => `${readableDay(props.suggestion.at)}, ${readableTime(props.suggestion.at)}`)
async function run(what: () => Promise<void>) {
  refusal.value = ''
  isBusy.value = true
  try {
    await what()
  } catch (cause) {
    refusal.value = refusalOf(cause).sentence
  } finally {
    isBusy.value = false
  }
}
const take = () =>
  run(async () => {
    await suggestions.take(props.suggestion, reply.value)
    sayDone('Taken into the draft.')
  })
const DONE: Record<Outcome, string> = {
  taken: 'Taken into the draft.',
  declined: 'Declined.',
  settled: 'Settled.',
  withdrawn: 'Withdrawn.',
}
const decide = (outcome: Outcome) =>
  run(async () => {
    await suggestions.decide(props.suggestion, outcome, reply.value)
    say(DONE[outcome])
  })
</script>

<template>
  <li
    class="sheet card"
    :aria-label="`${isProposal ? 'Proposal' : 'Remark'} by ${suggestion.by}`"
  >
    <p class="small">
      <strong>{{ suggestion.own ? 'You' : suggestion.by }}</strong>
      <span class="quiet"> · {{ when }}</span>
      <template v-if="suggestion.about && !isAtRow">
        <span class="quiet"> · about </span>
        <v-btn
          v-if="place"
          variant="text"
          @click="emit('go', place.address)"
          >{{ place.number }} {{ placeName(place) }}</v-btn
        ><span
          v-else
          class="quiet"
          >a row that is gone</span
        >
      </template>
    </p>
    <p
      v-if="suggestion.note"
      class="note"
    >
      {{ suggestion.note }}
    </p>
    <template v-if="isProposal">
      <ProposalLines
        :lines="lines"
        @go="emit('go', $event)"
      />
      <ProposalEffect :state="effect" />
    </template>
    <RefusalAlert :refusal="refusal" />
    <div
      v-if="mayDecide || suggestion.own"
      class="row-flex"
    >
      <v-text-field
        v-if="mayDecide"
        v-model="reply"
        class="reply"
        :aria-label="`A word back to ${suggestion.by}`"
        placeholder="A word back, if you like"
        maxlength="2000"
        hide-details
      />
      <template v-if="isProposal && mayDecide">
        <v-btn
          variant="flat"
          color="primary"
          :disabled="isBusy || isImpossible"
          @click="take"
          >Take it</v-btn
        ><v-btn
          :disabled="isBusy"
          @click="decide('declined')"
          >Decline</v-btn
        >
      </template>
      <v-btn
        v-if="maySettle"
        :disabled="isBusy"
        @click="decide('settled')"
        >Settled</v-btn
      >
      <v-btn
        v-if="suggestion.own && isProposal"
        :disabled="isBusy"
        @click="decide('withdrawn')"
        >Withdraw</v-btn
      >
    </div>
  </li>
</template>

<style scoped>
.card {
  padding: 10px 14px;
  display: grid;
  gap: 8px;
}
.note {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.reply {
  max-width: 320px;
}
</style>
