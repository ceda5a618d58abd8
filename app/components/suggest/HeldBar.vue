<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { describeEdits, type EditLine } from '#core/form/describeEdits'
import type { Proposal } from '#core/form/proposals'

/** What somebody who may suggest has written: here only, until it is proposed. */
const draft = useDraft()
const suggestions = useSuggestions()
const { say } = useSaid()
/** Worked out once the typing rests. */
const RESTS = 300
/** Each with what it changes, as the draft was when they were looked at. */
const proposals = shallowRef<readonly { proposal: Proposal; lines: EditLine[] }[]>([])
function look() {
  const base = draft.confirmed
  proposals.value = base
    ? suggestions.heldProposals().map(proposal => ({ proposal, lines: describeEdits(base, proposal.edits) }))
    : []
}
look()
watchDebounced(() => draft.held, look, { debounce: RESTS })
const asked = ref<'propose' | 'drop' | null>(null)
const note = ref('')
const refusal = ref('')
const isBusy = ref(false)
const MANY = 'changes that can each be taken or declined by itself'
const about = computed(() =>
  proposals.value.length === 1 ? '1 change' : `${proposals.value.length} ${MANY}`,
)
function begin() {
  look()
  refusal.value = ''
  asked.value = 'propose'
}
async function propose() {
  refusal.value = ''
  isBusy.value = true
  try {
    const wanted = proposals.value.map(p => p.proposal)
    await suggestions.propose(wanted, note.value.trim())
    say('Proposed: those who design this form decide.')
    note.value = ''
    asked.value = null
  } catch (cause) {
    refusal.value = refusalOf(cause).sentence
  } finally {
    isBusy.value = false
  }
}
function drop() {
  draft.letGo()
  asked.value = null
}
</script>

<template>
  <div
    v-if="proposals.length > 0"
    class="held row-flex"
    role="region"
    aria-label="What you have not proposed yet"
  >
    <span>{{ counted(proposals.length, 'change') }} of yours, seen by nobody else yet.</span>
    <span class="spread" />
    <v-btn @click="asked = 'drop'">Throw away…</v-btn
    ><v-btn
      variant="flat"
      color="primary"
      @click="begin"
      >Propose…</v-btn
    >
  </div>
  <PlainDialog
    v-if="asked === 'propose'"
    title="Propose"
    :width="620"
    @close="asked = null"
  >
    <p class="small quiet">{{ about }}</p>
    <ul class="proposals">
      <li
        v-for="(p, i) in proposals"
        :key="i"
      >
        <ProposalLines :lines="p.lines" />
      </li>
    </ul>
    <v-textarea
      v-model="note"
      data-first
      aria-label="Why"
      placeholder="Why, if you like to say it"
      rows="2"
      maxlength="2000"
    />
    <RefusalAlert :refusal="refusal" />
    <template #actions>
      <v-btn
        variant="flat"
        color="primary"
        :disabled="isBusy || proposals.length === 0"
        @click="propose"
        >Propose</v-btn
      ><v-btn @click="asked = null">Write on</v-btn>
    </template>
  </PlainDialog>
  <PlainDialog
    v-else-if="asked === 'drop'"
    title="Throw away what you have written"
    asks
    :width="480"
    @close="asked = null"
  >
    <p>{{ counted(proposals.length, 'change') }} of yours goes. This can’t be taken back.</p>
    <template #actions>
      <v-btn
        data-first
        @click="asked = null"
        >Keep it</v-btn
      ><v-btn
        class="fault"
        @click="drop"
        >Throw away</v-btn
      >
    </template>
  </PlainDialog>
</template>

<style scoped>
.held {
  padding: 5px 16px;
  border-bottom: 1px solid var(--line);
  background: var(--woad-wash);
  flex: none;
}
.proposals {
  display: grid;
  gap: 8px;
  max-height: 320px;
  overflow-y: auto;
}
.proposals li + li {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
</style>
